"""Results that exist already, on paper or in a spreadsheet."""
