"""A reverse proxy of the standard library: ends the encrypted link and passes requests on, as one in a house would.

``python -m tests.project.passing_on PORT TARGET_PORT CERTIFICATE KEY``
"""

import http.client
import ssl
import sys
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

LINK_ONLY = {"connection", "keep-alive", "transfer-encoding", "content-length"}


class PassingOn(BaseHTTPRequestHandler):
    """Says who asked and how, and passes on what is asked and answered."""

    protocol_version = "HTTP/1.1"
    target = 0

    def handle_one_request(self) -> None:
        """One request, or the end of the line."""
        try:
            super().handle_one_request()
        except (ConnectionError, ssl.SSLError):
            self.close_connection = True

    def _pass_on(self) -> None:
        body = self.rfile.read(int(self.headers.get("Content-Length", "0")))
        before = self.headers.get("X-Forwarded-For")
        who = f"{before}, {self.client_address[0]}" if before else self.client_address[0]
        head = {**dict(self.headers), "X-Forwarded-For": who, "X-Forwarded-Proto": "https"}
        line = http.client.HTTPConnection("127.0.0.1", self.target)
        line.request(self.command, self.path, body or None, head)
        answer = line.getresponse()
        said = answer.read()
        self.send_response_only(answer.status)
        for name, value in answer.getheaders():
            if name.lower() not in LINK_ONLY:
                self.send_header(name, value)
        self.send_header("Content-Length", str(len(said)))
        self.end_headers()
        self.wfile.write(said)
        line.close()

    do_GET = do_POST = do_PUT = do_DELETE = _pass_on

    def log_message(self, *_: object) -> None:
        """Nothing: what is asked is the server's matter."""


def main() -> None:
    """Pass on until it is ended."""
    port, PassingOn.target, certificate, key = int(sys.argv[1]), int(sys.argv[2]), sys.argv[3], sys.argv[4]
    server = ThreadingHTTPServer(("127.0.0.1", port), PassingOn)
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    context.load_cert_chain(certificate, key)
    server.socket = context.wrap_socket(server.socket, server_side=True, do_handshake_on_connect=False)
    print("passing on", flush=True)
    server.serve_forever()


if __name__ == "__main__":
    main()
