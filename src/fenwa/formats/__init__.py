"""Open formats read and written: SenML and CSV. No rule of the job lives here."""
