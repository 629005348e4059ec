"""The core: marks on frames become readings, gauges and judgements. Pure functions, no I/O."""
