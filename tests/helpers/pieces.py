"""Files so large that they come in pieces."""

from sqlalchemy import text

HEADER = "blade,edge,count,check,value\n"


MANY = HEADER + "".join(
    f"B{b},{e},{n},force,{150 + n}\n" for b in range(3) for e in (1, 2) for n in range(200)
)


def rows_of_all_tables(database):
    with database.read() as session:
        return {
            table: session.execute(text(f"SELECT count(*) FROM {table}")).scalar()
            for table in (
                "trial",
                "blade",
                "edge",
                "run",
                "event",
                "method",
                "measurement",
                "trial_blade",
            )
        }
