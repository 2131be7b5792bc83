"""Read-outs and gauges on a wire, and the stand-ins that speak like them."""
