"""Files sent to be imported."""

HEADER = "blade,count,check,value\n"


GOOD = HEADER + "A,0,force,150\nA,4,force,260\nA,8,force,340\nA,12,force,404\nA,12,force,410\n"


def post(client, *files, **form):
    sent = [("files", (name, content)) for name, content in files]
    return client.post("/api/imports", files=sent, data=form)
