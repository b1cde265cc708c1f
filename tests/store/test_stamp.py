"""What was worked out from the data is kept by the database's stamp: it must never outlive a
commit.
"""

from threading import Event, Thread

from sqlalchemy import text

from kessik.store.database import Database


def test_no_stamp_taken_before_a_commit_can_be_read_names_the_data_after_it(tmp_path):
    db = Database(tmp_path)
    with db.write() as session:
        session.execute(text("CREATE TABLE counted (n INTEGER)"))
        session.execute(text("INSERT INTO counted VALUES (0)"))
    kept: dict[object, int] = {}
    done = Event()

    def someone_reading():
        while not done.is_set():
            stamp = db.stamp()
            with db.read() as session:
                kept.setdefault(stamp, session.execute(text("SELECT n FROM counted")).scalar_one())

    reader = Thread(target=someone_reading)
    reader.start()
    try:
        for n in range(1, 150):
            with db.write() as session:
                session.execute(text("UPDATE counted SET n = :n"), {"n": n})
            assert kept.get(db.stamp(), n) >= n
    finally:
        done.set()
        reader.join()
        db.close()


def test_another_process_writing_moves_the_stamp_and_two_openings_never_share_one(tmp_path):
    here, there = Database(tmp_path), Database(tmp_path)
    before = here.stamp()
    assert before == here.stamp() != there.stamp()
    with there.write() as session:
        session.execute(text("CREATE TABLE counted (n INTEGER)"))
    assert here.stamp() != before
    here.close()
    there.close()
