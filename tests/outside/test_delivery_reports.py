"""Delivery reports as the standard shows them.

Source: RFC 3464 (Moore, Vaudreuil: An Extensible Message Format for Delivery Status Notifications, 2003),
appendix E: the simple report, here from memory, its addresses changed for invented ones.
"""

from django.test import TestCase

from tests.server import making
from tropometer.server.people.models import StudentPage
from tropometer.server.talking.bounces import bounces_in, note

SIMPLE = b"""Date: Thu, 7 Jul 1994 17:16:05 -0400
From: Mail Delivery Subsystem <MAILER-DAEMON@cs.skerrow.example>
To: <lessons@tropometer.example>
MIME-Version: 1.0
Content-Type: multipart/report; report-type=delivery-status;
 boundary="RAA14128.773615765/cs.skerrow.example"
Subject: Returned mail: Cannot send message for 5 days

--RAA14128.773615765/cs.skerrow.example

The original message was received at Sat, 2 Jul 1994 17:10:28 -0400

   ----- The following addresses had delivery problems -----
<Tobin@skerrow.example>  (unrecoverable error)

--RAA14128.773615765/cs.skerrow.example
content-type: message/delivery-status

Reporting-MTA: dns; cs.skerrow.example

Original-Recipient: rfc822;tobin@skerrow.example
Final-Recipient: rfc822;Tobin@skerrow.example
Action: failed
Status: 4.0.0
Diagnostic-Code: smtp; 426 connection timed out
Last-Attempt-Date: Thu, 7 Jul 1994 17:15:49 -0400

--RAA14128.773615765/cs.skerrow.example
content-type: message/rfc822

[original message goes here]

--RAA14128.773615765/cs.skerrow.example--
"""
RELAYED = SIMPLE.replace(b"Action: failed", b"Action: relayed")
DELAYED = SIMPLE.replace(b"Action: failed", b"Action: delayed")


class DeliveryReportTests(TestCase):
    def test_a_failed_recipient_is_found_with_its_reason(self) -> None:
        self.assertEqual(bounces_in(SIMPLE), [("tobin@skerrow.example", "426 connection timed out")])

    def test_what_was_relayed_or_is_late_has_not_failed_and_other_mail_is_no_report(self) -> None:
        for mail in (RELAYED, DELAYED, b"", b"Subject: hello\n\nFinal-Recipient: rfc822;x@y\nAction: failed"):
            self.assertEqual(bounces_in(mail), [])

    def test_it_stands_on_the_pages_of_whom_it_concerns_and_of_nobody_else(self) -> None:
        owner = making.instructor()
        making.student(owner)
        making.student(owner, name="Ilse Marrin", email="ilse@skerrow.example")
        self.assertEqual(note(SIMPLE), 1)
        (page,) = StudentPage.objects.all()
        self.assertEqual(page.student.name, "Tobin Farrow")
        self.assertEqual(
            page.mail_trouble, "Mail to tobin@skerrow.example does not arrive: 426 connection timed out"
        )
