"""Shapes: drafting any form, outlines found on pictures, meshes brought in, fits and compensation as jobs."""
