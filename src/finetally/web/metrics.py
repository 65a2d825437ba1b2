"""What is counted while it is served. Processes that answer count together where running/serving.py says so.

Read on a socket of their own (running/watch.py) and by `fine-tally doctor`.
"""

from __future__ import annotations

from prometheus_client import Counter, Histogram

BUCKETS = (0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5, 5.0, 10.0)
FORWARDED = "fine_tally_forwarded"
MOST_ADDRESSES = 10
"""More addresses than this are counted as so many: whoever asks writes what they like there."""

_requests = Counter("fine_tally_requests", "Requests by how they ended", ["method", "route", "ended"])
_seconds = Histogram("fine_tally_request_seconds", "How long requests took", ["route"], buckets=BUCKETS)
_forwarded = Counter(FORWARDED, "Requests from elsewhere by how many addresses proxies told of", ["addresses"])


def count_request(route: str, method: str, ended: str, seconds: float, forwarded: int | None) -> None:
    """Count one request. `forwarded`: how many addresses proxies told of, None for one from this machine."""
    _requests.labels(method, route, ended).inc()
    _seconds.labels(route).observe(seconds)
    if forwarded is not None:
        _forwarded.labels(str(min(forwarded, MOST_ADDRESSES))).inc()
