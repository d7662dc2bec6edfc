"""For whoever runs the studio: numbered requests, logs, measures, whether it is well and ready."""
