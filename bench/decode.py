"""The measurement behind decode.sh: hostile files looked at, and what an honest page takes meanwhile."""
import collections, http.cookiejar, io, json, os, random, re, shutil, socket, statistics, struct, subprocess, sys, tempfile, threading, time, urllib.error, urllib.parse, urllib.request, zipfile, zlib

FILES = int(os.environ.get("FILES", "2000"))
SEED = int(os.environ.get("SEED", "27"))
JAR = "server/target/oak-basket-app.jar"


def free_port():
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return s.getsockname()[1]


def zipped(**parts):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as z:
        for name, text in parts.items():
            z.writestr(name.replace("__", "/").replace("_x_", "."), text)
    return out.getvalue()


def png(wide, high, lines=b""):
    def chunk(kind, body):
        return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", struct.pack(">IIBBBBB", wide, high, 8, 2, 0, 0, 0)) + chunk(b"IDAT", zlib.compress(lines)) + chunk(b"IEND", b"")


WORDS = "<w:document xmlns:w='x'><w:body>" + "<w:p><w:r><w:t>Dear Ada</w:t></w:r></w:p>" * 50 + "</w:body></w:document>"
ROWS = "<worksheet><sheetData>" + "<row><c t='s'><v>0</v></c><c><v>7.5</v></c></row>" * 50 + "</sheetData></worksheet>"
HONEST = {
    "a.rtf": b"{\\rtf1\\ansi{\\fonttbl{\\f0 Arial;}}{\\colortbl;\\red1\\green2\\blue3;}\\f0 Dear \\b Ada\\b0\\par}",
    "a.docx": zipped(word__document_x_xml=WORDS), "a.odt": zipped(content_x_xml="<text:p xmlns:text='x'>Dear Ada</text:p>"), "a.pptx": zipped(ppt__slides__slide1_x_xml="<p><a:t xmlns:a='x'>Title</a:t></p>"),
    "a.xlsx": zipped(xl__worksheets__sheet1_x_xml=ROWS, xl__sharedStrings_x_xml="<sst><si><t>Ada</t></si></sst>", xl__workbook_x_xml="<workbook><sheets><sheet name='a'/></sheets></workbook>"),
    "a.gpx": b"<gpx><trk><trkseg>" + b"<trkpt lat='51.5' lon='-1.2'/>" * 200 + b"</trkseg></trk></gpx>", "a.csv": b"name;town\n" + "Åda;Fennbrook\n".encode() * 300, "a.xml": b"<a>" + b"<b c='d'>e</b>" * 300 + b"</a>",
    "a.html": b"<html><body>" + b"<p>Hello <b>Ada</b></p>" * 100 + b"</body></html>", "a.txt": b"Dear Ada\n" * 100, "a.doc": b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1" + bytes(2000), "a.xls": b"\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1" + bytes(range(256)) * 20,
}
BOMBS = {
    "deep.rtf": b"{\\rtf1 " + b"{" * 3_900_000, "wide.rtf": b"{\\rtf1 " + b"{\\b x}" * 600_000 + b"}", "bomb.docx": zipped(word__document_x_xml="<w:p><w:t>" + "a" * 150_000_000 + "</w:t></w:p>"),
    "shared.xlsx": zipped(xl__sharedStrings_x_xml="<sst>" + "<si><t>x</t></si>" * 2_000_000 + "</sst>", xl__worksheets__sheet1_x_xml=ROWS), "slides.pptx": zipped(**{f"ppt__slides__slide{n}_x_xml": "<a:t>x</a:t>" for n in range(1, 4000)}),
    "nodes.xml": b"<a>" * 300_000, "endless.gpx": b"<gpx><trk><trkseg>" + b"<trkpt lat='1' lon='2'/>" * 800_000, "head.html": b"<head <head " * 87_000, "quotes.csv": b'"' * 5_000_000,
}


def mutated(chance):
    name = chance.choice(sorted(HONEST))
    data = bytearray(HONEST[name])
    for _ in range(chance.randint(1, 12)):
        at = chance.randrange(len(data))
        kind = chance.randrange(5)
        if kind == 0:
            data[at] = chance.randrange(256)
        elif kind == 1:
            del data[at:at + chance.randint(1, 60)]
        elif kind == 2:
            piece = data[at:at + chance.randint(1, 200)]
            data[at:at] = bytes(piece) * chance.randint(2, 2000)
        elif kind == 3:
            data[at:at] = chance.choice([b"{", b"<", b"<![CDATA[", b"\\bin99999999 ", b"\xff\xff\xff\xff", b"&x;", b"\x00", b"PK\x03\x04"]) * chance.randint(1, 3000)
        else:
            data[at:at + 4] = struct.pack("<I", chance.choice([0, 1, 0x7FFFFFFF, 0xFFFFFFFF]))
        if not data:
            data = bytearray(b"x")
    return name, bytes(data[:4_000_000])


folder = tempfile.mkdtemp(prefix="oak-decode-")
port = free_port()
base = f"http://127.0.0.1:{port}"
process = subprocess.Popen(["java", "-Xmx512m", "-XX:+ExitOnOutOfMemoryError", "-jar", JAR, f"--server.port={port}", "--oakbasket.data=" + folder + "/data", "--oakbasket.demo=true"], stdout=open(folder + "/log", "w"), stderr=subprocess.STDOUT)


def desk():
    jar = http.cookiejar.CookieJar()
    opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))

    def call(method, path, body=None, raw=None):
        headers = {"Content-Type": "application/octet-stream" if raw is not None else "application/json"}
        headers.update({"X-XSRF-TOKEN": c.value for c in jar if c.name == "XSRF-TOKEN"})
        data = raw if raw is not None else json.dumps(body).encode() if body is not None else b"" if method == "POST" else None
        text = opener.open(urllib.request.Request(base + path, method=method, headers=headers, data=data), timeout=120).read()
        return json.loads(text) if text else None

    call("GET", "/api/session")
    call("POST", "/api/session", {"email": "coordinator@example.org", "password": "river oak basket"})
    return call


def heap():
    subprocess.run(["jcmd", str(process.pid), "GC.run"], capture_output=True, check=True)
    told = subprocess.run(["jcmd", str(process.pid), "GC.heap_info"], capture_output=True, text=True, check=True).stdout
    return int(re.search(r"used (\d+)K", told).group(1)) // 1024


def honest(stop, took):
    while not stop.is_set():
        began = time.monotonic()
        urllib.request.urlopen(page, timeout=60).read()
        urllib.request.urlopen(urllib.request.Request(base + "/api/basket", headers={"Oak-Link": page.rsplit("/", 1)[1]}), timeout=60).read()
        took.append((time.monotonic() - began) * 1000)
        time.sleep(0.05)


def told(took):
    ordered = sorted(took)
    return f"median {statistics.median(ordered):.0f} ms, 95th percentile {ordered[int(len(ordered) * 0.95)]:.0f} ms, longest {ordered[-1]:.0f} ms of {len(ordered)}"


def meanwhile(work):
    stop, took = threading.Event(), []
    asking = threading.Thread(target=honest, args=(stop, took))
    asking.start()
    work()
    stop.set()
    asking.join()
    return took


try:
    for _ in range(1200):
        if "Demo data made" in open(folder + "/log", errors="replace").read():
            break
        time.sleep(0.1)
    call = desk()
    number = next(one["id"] for one in call("GET", "/api/rounds") if one["state"] == "GATHERING")
    row = call("GET", f"/api/rounds/{number}/board")["rows"][0]["id"]
    page = base + urllib.parse.urlparse(call("GET", f"/api/baskets/{row}/link")["url"]).path
    quiet = meanwhile(lambda: time.sleep(15))
    before = heap()
    became, chance, slowest = collections.Counter(), random.Random(SEED), 0

    def look():
        global slowest
        files = list(BOMBS.items()) + [mutated(chance) for _ in range(FILES - len(BOMBS))]
        for name, content in files:
            try:
                paper = call("POST", "/api/loose?name=" + name, raw=content)["id"]
            except urllib.error.HTTPError as refused:
                became[f"not taken in, {refused.code}"] += 1
                continue
            began = time.monotonic()
            try:
                became[call("GET", f"/api/glances/loose/{paper}")["kind"]] += 1
            except urllib.error.HTTPError as refused:
                became[f"refused, {refused.code}"] += 1
            slowest = max(slowest, time.monotonic() - began)
            call("POST", f"/api/loose/{paper}/out")

    busy = meanwhile(look)
    after = heap()
    ended = open(folder + "/log", errors="replace").read().count("ended a child process")
    print(f"{sum(became.values())} files: {dict(became)}; {ended} ended a child; the longest look took {slowest:.1f} s")
    print("page of a sender, before:    " + told(quiet))
    print("page of a sender, meanwhile: " + told(busy))
    print(f"heap of the server after a collection: {before} MiB before, {after} MiB after; it runs: {process.poll() is None}")
finally:
    process.kill()
    shutil.rmtree(folder, ignore_errors=True)
