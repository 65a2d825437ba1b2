"""Heavy work in a queue: asked for by a request, done by the one process for it, looked at until it is over."""
