"""Bodies over what is allowed are refused in a sentence, whatever they say of their length, and are kept nowhere."""

from __future__ import annotations

import json
from typing import Any

from asgiref.sync import async_to_sync
from django.test import SimpleTestCase

from studio.large import bounded

FILE, ELSE = 3_000_000, 2_000_000
CHUNK = b"x" * 500_000


class Large(SimpleTestCase):
    def asked(self, chunks: int, kind: bytes, length: bytes | None) -> tuple[int, dict[str, Any] | None, int]:
        """Status, refusal, and how many bytes the application was given."""
        coming = [{"type": "http.request", "body": CHUNK, "more_body": at < chunks - 1} for at in range(chunks)]
        sent: list[dict[str, Any]] = []
        kept = 0

        async def application(scope: Any, receive: Any, send: Any) -> None:
            nonlocal kept
            while True:
                message = await receive()
                kept += len(message["body"])
                if not message["more_body"]:
                    break
            await send({"type": "http.response.start", "status": 200, "headers": []})
            await send({"type": "http.response.body", "body": b""})

        async def receive() -> dict[str, Any]:
            return coming.pop(0) if coming else {"type": "http.disconnect"}

        async def send(message: dict[str, Any]) -> None:
            sent.append(message)

        headers = [(b"content-type", kind), *([(b"content-length", length)] if length else [])]
        scope = {"type": "http", "headers": headers}
        async_to_sync(bounded(application, FILE, ELSE))(scope, receive, send)
        self.assertEqual(coming, [])
        body = sent[-1]["body"]
        return sent[0]["status"], json.loads(body) if body else None, kept

    def test_what_is_over_is_swallowed_and_said(self) -> None:
        rows = [
            ("small", 2, b"application/json", b"1000000", 200),
            ("as large as may be", 4, b"application/json", b"2000000", 200),
            ("says so", 9, b"application/json", b"4500000", 413),
            ("does not say", 9, b"application/json", None, 413),
            ("says less than comes", 9, b"application/json", b"7", 413),
            ("a file may be larger", 6, b"application/octet-stream", b"3000000", 200),
            ("a larger file", 9, b"application/octet-stream; x=1", None, 413),
        ]
        for name, chunks, kind, length, status in rows:
            with self.subTest(name):
                told, refusal, kept = self.asked(chunks, kind, length)
                self.assertEqual(told, status)
                self.assertLessEqual(kept, FILE if b"octet" in kind else ELSE)
                if status == 413:
                    self.assertIn("make it smaller", refusal["message"])
                    self.assertEqual(refusal["problems"], [{"field": "", "message": refusal["message"]}])

    def test_what_is_no_question_passes(self) -> None:
        passed = []

        async def application(scope: Any, receive: Any, send: Any) -> None:
            passed.append(scope["type"])

        async_to_sync(bounded(application, 1, 1))({"type": "lifespan"}, None, None)
        self.assertEqual(passed, ["lifespan"])
