"""Numbers that several parts of the core share; each stands here once."""

DAYS_A_MONTH = 30.44  # 365.25 / 12
Z80 = 1.2816  # half-width of the central 80 % of a normal law, in SDs
POUR_PER_REFILL = 1.25  # a pour nobody measured: the refill and a quarter more, so that a fifth runs out; judgement
uS_A_mg_N = 7.0  # E1.6: what a milligram of nitrogen of a complete feed adds to a litre
FLUSH_SHARE = 0.8  # of the ceiling: flush when the reading passes it, section 4.5
INCH_cm = 2.54  # by definition
MAD_TO_SD = 1.4826  # median absolute deviation to SD of a normal spread
