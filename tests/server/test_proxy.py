"""The proxy speaks TLS with a certificate of one's own, and tells the web server so."""

import datetime
import http.server
import os
import shutil
import ssl
import subprocess
import tempfile
import threading
import time
import urllib.request
from ipaddress import ip_address
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from django.test import SimpleTestCase

from ops.instance import free_port
from tests.swings import ROOT

HERE = "127.0.0.1"
PATIENCE_S = 30


def certificate(folder: Path) -> tuple[Path, Path]:
    """A certificate that signs itself, and its key."""
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(x509.NameOID.COMMON_NAME, "studio")])
    now = datetime.datetime.now(datetime.UTC)
    made = (
        x509.CertificateBuilder(name, name, key.public_key(), x509.random_serial_number())
        .not_valid_before(now - datetime.timedelta(days=1))
        .not_valid_after(now + datetime.timedelta(days=1))
        .add_extension(x509.SubjectAlternativeName([x509.IPAddress(ip_address(HERE))]), critical=False)
        .sign(key, hashes.SHA256())
    )
    pem, plain = serialization.Encoding.PEM, serialization.NoEncryption()
    cert_file, key_file = folder / "studio.pem", folder / "studio.key"
    cert_file.write_bytes(made.public_bytes(pem))
    key_file.write_bytes(key.private_bytes(pem, serialization.PrivateFormat.PKCS8, plain))
    return cert_file, key_file


class Echo(http.server.BaseHTTPRequestHandler):
    """Answers with a page that says what was spoken before the proxy, and how it may be packed."""

    def do_GET(self) -> None:
        packed = self.headers.get("Accept-Encoding", "")
        told = f"<head></head>{self.headers['X-Forwarded-Proto']} {packed}".encode()
        self.send_response(200)
        self.send_header("Content-Type", "text/html")
        self.send_header("Content-Length", str(len(told)))
        self.end_headers()
        self.wfile.write(told)

    def log_message(self, format: str, *args: object) -> None:
        """Nothing is logged."""


class ProxyTests(SimpleTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.root = Path(folder.name)
        (self.root / "ops").mkdir()
        shutil.copy(ROOT / "ops" / "proxy.sh", self.root / "ops")
        self.port = free_port()

    def write(self, web: int, **environment: str) -> subprocess.CompletedProcess[str]:
        ends = [f"{HERE}:{self.port}", f"{HERE}:{web}", f"{HERE}:9"]
        return subprocess.run(
            ["bash", "ops/proxy.sh", *ends],
            cwd=self.root,
            env={**os.environ, **environment},
            capture_output=True,
            text=True,
            check=False,
        )

    def run_before(self, **environment: str) -> None:
        """The proxy before a web server."""
        web = http.server.ThreadingHTTPServer((HERE, 0), Echo)
        threading.Thread(target=web.serve_forever, daemon=True).start()
        self.addCleanup(web.server_close)
        self.addCleanup(web.shutdown)
        made = self.write(web.server_port, **environment)
        self.assertEqual(made.returncode, 0, made.stderr)
        there = f"{self.root}/var/nginx"
        proxy = subprocess.Popen(
            ["nginx", "-p", there, "-c", f"{there}/nginx.conf"], stderr=subprocess.DEVNULL
        )
        self.addCleanup(proxy.wait)
        self.addCleanup(proxy.terminate)

    def ask(self, url: str, context: ssl.SSLContext | None = None) -> str:
        """What is answered, once the proxy runs."""
        request = urllib.request.Request(url, headers={"Accept-Encoding": "br"})
        end = time.monotonic() + PATIENCE_S
        while True:
            try:
                with urllib.request.urlopen(request, context=context) as answer:
                    text: str = answer.read().decode()
                    return text
            except OSError:
                self.assertLess(time.monotonic(), end, "The proxy did not start.")
                time.sleep(0.1)

    def test_it_speaks_tls_with_a_certificate_of_one_s_own(self) -> None:
        cert, key = certificate(self.root)
        self.run_before(TROPO_TLS_CERT=str(cert), TROPO_TLS_KEY=str(key))
        trusted = ssl.create_default_context(cafile=str(cert))
        self.assertIn("https br", self.ask(f"https://{HERE}:{self.port}/", trusted))

    def test_cameras_that_are_not_there_are_on_the_pages_of_the_demo_s_other_address_only(self) -> None:
        shutil.copytree(ROOT / "web" / "standins", self.root / "web" / "standins")
        other = free_port()
        self.run_before(TROPO_CAMERA_WEB=str(other))
        self.assertEqual(
            self.ask(f"http://{HERE}:{other}/"),
            "<head><script src=/stand-in/camera.js></script></head>http ",
        )
        self.assertEqual(self.ask(f"http://{HERE}:{self.port}/"), "<head></head>http br")
        self.assertIn("getUserMedia", self.ask(f"http://{HERE}:{other}/stand-in/camera.js"))

    def test_a_key_that_is_not_there_is_said(self) -> None:
        cert, _ = certificate(self.root)
        missing = self.write(9, TROPO_TLS_CERT=str(cert), TROPO_TLS_KEY="nowhere.key")
        self.assertEqual((missing.returncode, "nowhere.key cannot be read" in missing.stderr), (2, True))
        self.assertNotEqual(self.write(9, TROPO_TLS_CERT=str(cert), TROPO_TLS_KEY="").returncode, 0)
