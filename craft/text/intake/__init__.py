"""Text out of documents that others made: HTML, DOCX and PDF. They are read in a process with limits (`__main__`)."""

from craft.text.intake.document import MOST_BYTES, DocumentText, document_kind, document_text

__all__ = ["MOST_BYTES", "DocumentText", "document_kind", "document_text"]
