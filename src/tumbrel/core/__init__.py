"""The rules of the job and all computation. Knows no web framework, network or clock."""
