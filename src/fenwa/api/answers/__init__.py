"""Did it help, what is wrong: routes of evidence."""
