"""Did it help? Changes, pairs and seasons judged from the grower’s own log, with how sure that is."""
