"""The two samples of docs/server/ as they are, each on a port of its own before a server of the tests."""

from __future__ import annotations

import contextlib
import os
import re
import shutil
import ssl
import subprocess
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path

from tests.conftest import REPOSITORY
from tests.serving import Server, answers, free_port, until

SAMPLES = REPOSITORY / "docs/server"
NAME = "tally.example.org"


@dataclass(frozen=True)
class Proxy:
    """A proxy that runs: what it is reached by, and the files that it writes."""

    url: str
    port: int
    folder: Path

    def written(self) -> str:
        """All that it logged."""
        return "".join(one.read_text("utf-8", "replace") for one in self.folder.glob("*.log"))


def trusting() -> ssl.SSLContext:
    """What trusts a certificate that was made for the test."""
    made = ssl.create_default_context()
    made.check_hostname, made.verify_mode = False, ssl.CERT_NONE
    return made


def _nginx(folder: Path, port: int, server: Server) -> list[str]:
    key, chain = folder / "privkey.pem", folder / "fullchain.pem"
    asked = ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", f"/CN={NAME}"]
    subprocess.run([*asked, "-keyout", str(key), "-out", str(chain)], check=True, capture_output=True)
    sample = (SAMPLES / "nginx.conf").read_text("utf-8")
    for was, now in (
        (f"/etc/ssl/{NAME}", str(folder)),
        ("/var/log/nginx", str(folder)),
        ("listen 443 ssl", f"listen 127.0.0.1:{port} ssl"),
        ("listen 80;", f"listen 127.0.0.1:{free_port()};"),
        ("127.0.0.1:8420", f"127.0.0.1:{server.port}"),
    ):
        assert was in sample, was
        sample = sample.replace(was, now)
    paths = "".join(
        f"{one}_temp_path {folder}/{one};\n" for one in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
    )
    user = "user root;\n" if os.geteuid() == 0 else ""
    whole = f"{user}pid {folder}/pid;\ndaemon off;\nerror_log {folder}/error.log;\nevents {{}}\nhttp {{\n{paths}{sample}\n}}\n"
    (folder / "nginx.conf").write_text(whole, "utf-8")
    return ["nginx", "-p", str(folder), "-e", str(folder / "first.log"), "-c", str(folder / "nginx.conf")]


def _caddy(folder: Path, port: int, server: Server) -> list[str]:
    sample = (SAMPLES / "Caddyfile").read_text("utf-8")
    for was, now in (
        (re.escape("/var/log/caddy"), str(folder)),
        (r"127\.0\.0\.1:8420", f"127.0.0.1:{server.port}"),
        (rf"(?m)^{re.escape(NAME)} {{", f"https://localhost:{port}, https://127.0.0.1:{port} {{\n\ttls internal"),
        (r"(?m)^{$", "{\n\tadmin off\n\tauto_https disable_redirects\n\tskip_install_trust"),
    ):
        sample, number = re.subn(was, now, sample)
        assert number, was
    (folder / "Caddyfile").write_text(sample, "utf-8")
    return ["caddy", "run", "--config", str(folder / "Caddyfile"), "--adapter", "caddyfile"]


PROXIES: dict[str, Callable[[Path, int, Server], list[str]]] = {"nginx": _nginx, "caddy": _caddy}
INSTALLED = [name for name in PROXIES if shutil.which(name)]
"""Those that are here: a machine need not have them."""


@contextlib.contextmanager
def in_front_of(server: Server, name: str, folder: Path) -> Iterator[Proxy]:
    """A proxy that runs before a server as its sample says."""
    port = free_port()
    command = PROXIES[name](folder, port, server)
    environment = {**os.environ, "XDG_DATA_HOME": str(folder / "data"), "XDG_CONFIG_HOME": str(folder / "config")}
    with (folder / "said.log").open("wb") as log:
        process = subprocess.Popen(command, cwd=folder, env=environment, stdout=log, stderr=log)
    made = Proxy(f"https://127.0.0.1:{port}", port, folder)
    try:
        _wait(made, process)
        yield made
    finally:
        process.terminate()
        process.wait(60)


def _wait(proxy: Proxy, process: subprocess.Popen[bytes]) -> None:
    until(lambda: process.poll() is not None or answers(f"{proxy.url}/alive", trusting()), proxy.written)
    assert process.poll() is None, proxy.written()
