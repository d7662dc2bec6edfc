"""The Django project: one app per subject, the same file names in each.

models: what is kept. policy: who may see which rows. actions: one function per change, which checks,
writes in one transaction and records. schemas: what goes over the wire. api: thin routes.
"""
