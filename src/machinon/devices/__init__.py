"""Read-outs and digital gauges; empty until the first one is built."""
