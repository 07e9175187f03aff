"""The measurement behind senders.sh: many senders at once through open and personal links, and what small calls take meanwhile."""
import base64, hashlib, http.client, http.cookiejar, json, os, shutil, socket, statistics, subprocess, sys, tempfile, threading, time, urllib.request

SENDERS = int(os.environ.get("SENDERS", "200"))
FILES = int(os.environ.get("FILES", "5"))
BYTES = int(os.environ.get("KIB", "2048")) << 10
STALLED = int(os.environ.get("STALLED", "0"))
JAR = "server/target/oak-basket-app.jar"


def address(n):
    """Each sender calls from an address of their own, as senders do; whoever makes small calls, from yet another."""
    return f"127.0.1.{n % 250 + 1}"


def free_port():
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return s.getsockname()[1]


folder = tempfile.mkdtemp(prefix="oak-senders-", dir=os.environ.get("BENCH_FOLDER"))
port = free_port()
base = f"http://127.0.0.1:{port}"
process = subprocess.Popen(["java", "-Xmx256m", "-jar", JAR, f"--server.port={port}", "--oakbasket.data=" + folder + "/data", "--oakbasket.demo=true"], stdout=open(folder + "/log", "w"), stderr=subprocess.STDOUT)


def wait_until_ready():
    for _ in range(900):
        try:
            urllib.request.urlopen(base + "/actuator/health", timeout=2)
            return
        except OSError:
            time.sleep(0.1)
    sys.exit("the product did not start")


def desk():
    jar = http.cookiejar.CookieJar()
    opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))

    def call(method, path, body=None):
        headers = {"Content-Type": "application/json"}
        headers.update({"X-XSRF-TOKEN": c.value for c in jar if c.name == "XSRF-TOKEN"})
        text = opener.open(urllib.request.Request(base + path, method=method, headers=headers, data=json.dumps(body).encode() if body is not None else None)).read()
        return json.loads(text) if text else None

    call("GET", "/api/session")
    call("POST", "/api/session", {"email": "coordinator@example.org", "password": "river oak basket"})
    return call


def prepare(call):
    people = [{"name": f"Person {n}", "email": f"person{n}@example.org"} for n in range(SENDERS)]
    draft = call("POST", "/api/rounds", {"title": "Senders", "deadlineDate": "2099-06-30", "zone": "UTC", "folderPattern": "{round}/{person}", "namePattern": "{original}{ext}",
                                         "items": [{"title": "Anything", "maxFiles": 50, "maxMebibytes": 50, "kinds": []}], "people": people})
    number = draft["head"]["id"]
    call("POST", f"/api/rounds/{number}/open", {"version": 1})
    return [one["url"].rsplit("/", 1)[1] for one in call("GET", f"/api/rounds/{number}/links")]


failures, again, receipts = [], [0], {}


def asked(connection, method, path, body, headers):
    """What the page does: what the server may take a little later is tried again."""
    for pause in (0.5, 1, 2, 4, 8, 15, 30, 30, 30, 30, 30, 30):
        connection.request(method, path, body=body, headers=headers)
        answer = connection.getresponse()
        text = answer.read()
        if answer.status not in (409, 423, 429, 503):
            return answer, text
        again[0] += 1
        time.sleep(pause)
    return answer, text


def sender(n, token, gate):
    try:
        contents = [os.urandom(1 << 14) * (BYTES >> 14) for _ in range(FILES)]
        expected = {f"p{n}f{i}.bin": hashlib.sha256(content).hexdigest() for i, content in enumerate(contents)}
        gate.wait()
        connection = http.client.HTTPConnection("127.0.0.1", port, timeout=600, source_address=(address(n), 0))
        answer, text = asked(connection, "POST", "/api/basket/submissions", b"{}", {"Content-Type": "application/json", "Oak-Link": token})
        assert answer.status == 201, (answer.status, text)
        key = json.loads(text)["submission"]
        for i, content in enumerate(contents):
            metadata = "filename " + base64.b64encode(f"p{n}f{i}.bin".encode()).decode() + ",item " + base64.b64encode(b"1").decode() + ",once " + base64.b64encode(f"{i}".encode()).decode()
            answer, text = asked(connection, "POST", "/api/uploads", content, {"Oak-Link": token, "Oak-Submission": key, "Tus-Resumable": "1.0.0", "Upload-Length": str(len(content)),
                                 "Upload-Metadata": metadata, "Content-Type": "application/offset+octet-stream"})
            assert answer.status == 201, (answer.status, text)
        answer, text = asked(connection, "POST", "/api/basket/submissions/finish", b"{}", {"Content-Type": "application/json", "Oak-Submission": key})
        assert answer.status == 200, (answer.status, text)
        told = {file["name"]: file["sha256"] for file in json.loads(text)["files"]}
        assert told == expected, "hashes differ"
        receipts.update(expected)
    except Exception as problem:  # noqa: BLE001, every failure is counted and printed
        failures.append(repr(problem)[:300])


CALLER = """
import http.client, json, sys, time
port, token, stop = int(sys.argv[1]), sys.argv[2], sys.argv[3]
times, connection = [], http.client.HTTPConnection("127.0.0.1", port, timeout=60, source_address=("127.0.2.1", 0))
import os
while not os.path.exists(stop):
    begun = time.perf_counter()
    connection.request("GET", "/api/basket", headers={"Oak-Link": token})
    answer = connection.getresponse()
    answer.read()
    assert answer.status == 200, answer.status
    times.append((time.perf_counter() - begun) * 1000)
    time.sleep(0.05)
print(json.dumps(times))
"""


class SmallCalls:
    """The page of another sender, again and again on one connection, from a process of its own: what it waits for is the server and not the threads of this script."""

    def __init__(self, token):
        self.stop = tempfile.mktemp(dir=folder)
        self.process = subprocess.Popen([sys.executable, "-c", CALLER, str(port), token, self.stop], stdout=subprocess.PIPE, text=True)

    def times(self):
        open(self.stop, "w").close()
        return json.loads(self.process.communicate()[0])


def p95(times):
    return sorted(times)[int(len(times) * 0.95)]


def stall(tokens):
    """Uploads that were begun, sent half of a small piece, and then nothing: each holds its connection open."""
    sockets, keys = [], []
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=600)
    for token in tokens:
        answer, text = asked(connection, "POST", "/api/basket/submissions", b"{}", {"Content-Type": "application/json", "Oak-Link": token})
        keys.append(json.loads(text)["submission"])
    for n in range(STALLED):
        s = socket.create_connection(("127.0.0.1", port), source_address=(address(n % len(tokens)), 0))
        s.sendall((f"POST /api/uploads HTTP/1.1\r\nHost: x\r\nOak-Link: {tokens[n % len(tokens)]}\r\nOak-Submission: {keys[n % len(tokens)]}\r\nTus-Resumable: 1.0.0\r\nUpload-Length: 1000000\r\n"
                   f"Upload-Metadata: filename YQ==,item MQ==\r\nContent-Type: application/offset+octet-stream\r\nContent-Length: 1000000\r\n\r\n").encode() + b"x" * 1000)
        sockets.append(s)
    return sockets


try:
    wait_until_ready()
    call = desk()
    tokens = prepare(call)
    calls = SmallCalls(tokens[0])
    time.sleep(5)
    alone = calls.times()
    gate = threading.Event()
    threads = [threading.Thread(target=sender, args=(n, token, gate)) for n, token in enumerate(tokens)]
    for thread in threads:
        thread.start()
    time.sleep(8)
    begun = time.perf_counter()
    calls = SmallCalls(tokens[0])
    gate.set()
    for thread in threads:
        thread.join()
    took = time.perf_counter() - begun
    meanwhile = calls.times()
    stored = {}
    for place, _, names in os.walk(folder + "/data/files/Senders"):
        for name in names:
            with open(os.path.join(place, name), "rb") as file:
                stored[name] = hashlib.sha256(file.read()).hexdigest()
    right = sum(stored.get(name) == digest for name, digest in receipts.items())
    print(f"{SENDERS} senders at once, {FILES} files of {BYTES >> 10} KiB each: {len(failures)} failed, {right} of {SENDERS * FILES} files stored with the hash of their receipt, "
          f"{len(stored)} files in the folders, {again[0]} requests were told to come again; {took:.1f} s, {SENDERS * FILES * BYTES / took / (1 << 20):.0f} MiB/s")
    for failure in failures[:5]:
        print("  " + failure)
    print(f"small calls: median {statistics.median(alone):.1f} ms and p95 {p95(alone):.1f} ms alone; median {statistics.median(meanwhile):.1f} ms and p95 {p95(meanwhile):.1f} ms meanwhile ({len(meanwhile)} calls)")
    if STALLED:
        held = stall(tokens)
        time.sleep(1)
        calls = SmallCalls(tokens[0])
        time.sleep(6)
        stalled = calls.times()
        print(f"small calls beside {STALLED} stalled uploads: median {statistics.median(stalled):.1f} ms, p95 {p95(stalled):.1f} ms")
        for s in held:
            s.close()
    for line in open(f"/proc/{process.pid}/status"):
        if line.startswith("VmHWM"):
            print(f"peak resident memory {int(line.split()[1]) // 1024} MiB")
    ok = not failures and right == SENDERS * FILES == len(stored)
finally:
    process.terminate()
    process.wait()
    shutil.rmtree(folder, ignore_errors=True)
sys.exit(0 if ok else 1)
