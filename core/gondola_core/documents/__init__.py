"""What is printed, saved or sent: text, sheets, calendars."""
