"""Round charts in the trade's published symbols, as SVG."""

from craft.chart.draw import draw_chart
from craft.chart.layout import Chart, Glyph, lay_out

__all__ = ["Chart", "Glyph", "draw_chart", "lay_out"]
