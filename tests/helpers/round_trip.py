"""Files of one trial, as text."""

HEADER = (
    "trial,blade,edge,run,seq,count,count_unit,check,value,unit,outcome,stage,position_mm,"
    "struck,time,note"
)


SERIES = f"""{HEADER},weather
Raft,A,3,1,1,0,cuts,force,150,gf,,,,no,2026-05-04T10:00:00+02:00,,rain
Raft,A,3,1,2,0,cuts,force,1.5,N,,,40,no,,,rain
Raft,A,3,1,3,4,cuts,force,260,gf,,,,no,,'=SUM(1),rain
Raft,A,3,1,4,8,cuts,force,990,gf,,,,yes,,line knotted,
Raft,A,3,1,5,8,cuts,force,345,gf,,,,no,,,
Raft,A,3,1,6,12,cuts,force,402,gf,,,,no,,,
Raft,A,3,1,7,12,cuts,force,409,gf,,,,no,,,
Raft,B,1,1,1,48,m,paper,,,pass,working,,no,,,
Raft,B,1,1,2,60,m,paper,,,fail,working,,no,,,
Raft,B,1,1,3,60,m,inspect,,,roll,,31,no,,,
"""


BLADES = (
    "blade,claimed_grade,hardness_hrc,hardness_standing,grind,owner\nA,1.4034,57.5,measured_here,flat,Corran"
    " Forge\n"
)


EDGES = (
    "blade,edge,side_angle_deg,thickness_behind_edge_mm,minutes,nick\nA,3,15,0.36,22,none seen\n"
)
