-- What is kept of proofs beside threads is computed anew: verdicts have new words and reasons.
UPDATE case_record SET summary_seq = -1;
