"""From a cutting plan to machine programs: the machine and its tools, work on boards, RS-274 programs.

The simulated machine that checks programs is simulator.py beside this folder; it shares nothing with the writer.
"""
