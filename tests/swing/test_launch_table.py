"""Launch tables as people have them: whatever their headers, units, decimals and sides, or a clear error."""

from datetime import time
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from tropometer.swing.formats.launch_columns import Use
from tropometer.swing.formats.launch_table import proposed, read_table, shots
from tropometer.swing.formats.record_error import RecordError

GERMAN = """Island range, lane 2

No.;Hit at;Club speed;Ball speed (km/h);Club path;Face angle;Launch angle;Launch direction;Spin rate;Spin axis;Carry;Offline
;;km/h;;°;°;°;°;rpm;°;yd;ft
1;2026-11-03 10:02:11;128,4;175,2;4,1 R;1,2 L;16,9;0,4 L;6.120;-3,1;151,1;19,7 L
2;2026-11-03 10:03:01;128,9;-;-;R 1,2;17;0,4R;5.980;;150;0
;;;;;;;;;;;
"""  # noqa: E501 - a table's line is as long as it is


class LaunchTableTests(TestCase):
    def refused(self, text: str, uses: dict[str, Use] | None = None) -> str:
        with self.assertRaises(RecordError) as caught:
            table = read_table(text)
            shots(table, proposed(table) if uses is None else uses, "right")
        return str(caught.exception)

    def test_titles_a_line_of_units_decimal_commas_and_letters_for_sides(self) -> None:
        table = read_table(GERMAN)
        uses = proposed(table) | {"Hit at": Use(field="time", unit="")}
        first, second = shots(table, uses, "right")
        self.assertEqual((first.line, first.at), (5, time(10, 2, 11)))
        launch = first.launch
        self.assertAlmostEqual(launch.club_speed_m_s or 0, 128.4 / 3.6)
        self.assertEqual((launch.club_path_deg, launch.face_deg, launch.start_deg), (4.1, -1.2, -0.4))
        self.assertEqual(launch.spin_rpm, 6120)
        self.assertAlmostEqual(launch.carry_m or 0, 138.17, places=2)
        self.assertAlmostEqual(launch.aside_m or 0, -6.0, places=2)
        self.assertIsNone(second.launch.ball_speed_m_s)
        self.assertEqual((second.launch.face_deg, second.launch.start_deg), (1.2, 0.4))
        (left, _) = shots(table, uses, "left")  # the ball's side is the other one
        self.assertEqual((left.launch.club_path_deg, left.launch.launch_deg), (-4.1, 16.9))

    def test_a_side_without_a_letter_is_as_the_column_says(self) -> None:
        table = read_table("Path,Carry\n-2.5,140\n")
        for positive, hand, value in (
            ("right", "right", -2.5),
            ("left", "right", 2.5),
            ("right", "left", 2.5),
            ("ball_side", "left", -2.5),
        ):
            uses = {"Path": Use(field="club_path_deg", unit="deg", positive=positive)}  # type: ignore[arg-type]
            (shot,) = shots(table, uses, hand)  # type: ignore[arg-type]
            self.assertEqual(shot.launch.club_path_deg, value, (positive, hand))

    def test_thousands_are_no_decimals_and_a_unit_in_the_cell_counts(self) -> None:
        (shot,) = shots(table := read_table('Spin,Carry\n"6,120",140.5 yd\n'), proposed(table), "right")
        self.assertEqual(shot.launch.spin_rpm, 6120)
        self.assertAlmostEqual(shot.launch.carry_m or 0, 140.5 * 0.9144)
        comma = read_table("Spin;Carry\n6120;140,125\n")
        self.assertEqual(shots(comma, proposed(comma), "right")[0].launch.carry_m, 140.125)
        self.assertEqual(
            self.refused("Spin;Carry\n6120;140,125\n1;2.5\n"),  # a point elsewhere: the comma parts thousands
            "line 2, Carry: 140,125 is no carry in m",
        )
        both = read_table("Carry;Spin\n140.5;12,5\n")
        self.assertEqual(shots(both, proposed(both), "right")[0].launch.spin_rpm, 12.5)
        with self.assertRaisesRegex(RecordError, "“12,5” is not a number"):  # never 125
            shots(both, proposed(both), "right", decimal=".")

    def test_what_is_wrong_is_named_by_line_and_column(self) -> None:
        for text, told in (
            ("", "line 1: there is no line that names columns"),
            ("1,2,3\n4,5,6", "line 1: there is no line that names columns"),
            ("Carry,Spin\n", "line 2: there is no shot below the header"),
            ("Carry,Carry\n1,2", "line 1: two columns are named “Carry”"),
            ("Carry,Spin\n140", "line 2: 1 columns, where the header has 2"),
            ("Carry,Spin\n140,6000\n12far,1", "line 3, Carry: “12far” is not a number"),
            ("Carry,Spin\n140000,6000", "line 2, Carry: 140000 is no carry in m"),
            ("Carry,Time\n140,25:61:00", "line 2, Time: “25:61:00” is not a time of day"),
        ):
            self.assertEqual(self.refused(text), told)
        self.assertIn("cannot be parted", self.refused(f"Carry,Spin\n{'1' * 200_000},2"))
        carry = Use(field="carry_m", unit="m")
        self.assertIn("no such column", self.refused("Carry,X\n1,2", {"Y": carry}))
        self.assertIn("two columns are said", self.refused("Carry,X\n1,2", {"Carry": carry, "X": carry}))

    def test_words_that_make_another_thing_of_a_column(self) -> None:
        others = "Club,Face to path,Spin axis,Sidespin,Flight time,Side angle,Landing angle,Smash,Total"
        found = proposed(read_table(f"{others},Carry side\n{',' * 9}1\n"))
        self.assertEqual(found, {"Carry side": Use(field="aside_m", unit="m")})

    @given(
        st.lists(st.tuples(st.integers(100, 2200), st.integers(-200, 200)), min_size=1, max_size=8),
        st.sampled_from([(";", ","), (";", "."), ("\t", ","), (",", ".")]),
        st.sampled_from([("m", 1.0), ("yd", 0.9144)]),
    )
    def test_what_is_written_with_one_decimal_is_read_again(
        self, rows: list[tuple[int, int]], signs: tuple[str, str], unit: tuple[str, float]
    ) -> None:
        """Whatever parts cells and decimals, as long as they are not the same."""
        (delimiter, point), (name, metres) = signs, unit

        def cell(tenths: int) -> str:
            return f"{tenths / 10:.1f}".replace(".", point)

        lines = [f"Carry [{name}]{delimiter}Path (deg)"]
        lines += [delimiter.join((cell(carry), cell(path))) for carry, path in rows]
        table = read_table("\r\n".join(lines))
        found = [shot.launch for shot in shots(table, proposed(table), "right")]
        for launch, (carry, path) in zip(found, rows, strict=True):
            self.assertAlmostEqual(launch.carry_m or 0, carry / 10 * metres)
            self.assertEqual(launch.club_path_deg, path / 10)
