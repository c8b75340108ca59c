"""The reviewer's reference model: mass, stiffness, modes and response, on NumPy and SciPy.

Two depths, one interface: lateral lines on rigid diaphragms (`lines`) and a three-dimensional frame (`frame`) both
become a
`Structure`, and everything after that (modes, spectrum response, static response, time history) knows only that.
"""
