"""Round charts in the trade's published symbols, as SVG."""

from craft.document.chart.draw import draw_chart
from craft.document.chart.layout import Chart, Glyph, lay_out
from craft.document.chart.sheet import chart_sheet

__all__ = ["Chart", "Glyph", "chart_sheet", "draw_chart", "lay_out"]
