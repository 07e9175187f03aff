"""The measurement behind upload.sh: Oak Basket against nginx PUT plus a hash and a flush, in turn, in one run."""
import base64, hashlib, http.client, http.cookiejar, json, os, shutil, socket, statistics, subprocess, sys, tempfile, time, urllib.request

ROUNDS = int(os.environ.get("ROUNDS", "5"))
SMALL_ROUNDS = int(os.environ.get("SMALL_ROUNDS", "3"))
BYTES = int(os.environ.get("MIB", "1024")) << 20
FILES = int(os.environ.get("FILES", "2000"))
HUGE = int(os.environ.get("HUGE_GIB", "0")) << 30
SMALL = 16 * 1024
JAR = "server/target/oak-basket-app.jar"
EARLIER = os.environ.get("EARLIER_JAR", "")


def free_port():
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return s.getsockname()[1]


class Nginx:
    def __init__(self, folder):
        self.port, self.folder = free_port(), os.path.join(folder, "nginx")
        os.makedirs(self.folder + "/files")
        os.makedirs(self.folder + "/body")
        os.chmod(folder, 0o755)
        conf = f"""daemon off; pid {self.folder}/pid; error_log {self.folder}/error.log; worker_processes 2; user {"root" if os.getuid() == 0 else ""};
            events {{ worker_connections 64; }}
            http {{ access_log off; client_max_body_size 0; client_body_temp_path {self.folder}/body;
              server {{ listen 127.0.0.1:{self.port}; root {self.folder}/files; location / {{ dav_methods PUT; }} }} }}"""
        if os.getuid() != 0:
            conf = conf.replace("user ;", "")
        open(self.folder + "/nginx.conf", "w").write(conf)
        self.process = subprocess.Popen(["nginx", "-c", self.folder + "/nginx.conf"], stderr=subprocess.DEVNULL)
        wait_for(self.port)

    def put(self, connection, name, body, length):
        connection.request("PUT", "/" + name, body=body, headers={"Content-Length": str(length)})
        answer = connection.getresponse()
        answer.read()
        assert answer.status in (201, 204), answer.status
        return self.folder + "/files/" + name


class Product:
    def __init__(self, folder, jar=JAR):
        self.port, self.data = free_port(), os.path.join(folder, "oak" if jar == JAR else "earlier")
        self.process = subprocess.Popen(["java", "-Xmx256m", "-jar", jar, f"--server.port={self.port}", "--oakbasket.data=" + self.data, "--oakbasket.demo=true"],
                                        stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
        self.base = f"http://127.0.0.1:{self.port}"
        wait_until_ready(self.base)
        self.prepare()

    def prepare(self):
        jar = http.cookiejar.CookieJar()
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))

        def call(method, path, body=None):
            headers = {"Content-Type": "application/json"}
            headers.update({"X-XSRF-TOKEN": c.value for c in jar if c.name == "XSRF-TOKEN"})
            request = urllib.request.Request(self.base + path, method=method, headers=headers, data=json.dumps(body).encode() if body is not None else None)
            text = opener.open(request).read()
            return json.loads(text) if text else None

        call("GET", "/api/session")
        call("POST", "/api/session", {"email": "coordinator@example.org", "password": "river oak basket"})
        items = [{"title": "Anything", "maxFiles": 5000, "maxMebibytes": 1048576, "kinds": []}]
        people = [{"name": f"Person {n}", "email": f"person{n}@example.org"} for n in range(40)]
        draft = call("POST", "/api/rounds", {"title": "Bench", "deadlineDate": "2099-06-30", "zone": "UTC", "folderPattern": "{round}/{person}",
                                            "namePattern": "{original}{ext}", "items": items, "people": people})
        number = draft["head"]["id"]
        call("POST", f"/api/rounds/{number}/open", {"version": 1})
        rows = call("GET", f"/api/rounds/{number}/board")["rows"]
        self.tokens = [call("GET", f"/api/baskets/{row['id']}/link")["url"].rsplit("/", 1)[1] for row in rows]

    def begin(self):
        """The next person begins a submission."""
        self.token = self.tokens.pop()
        request = urllib.request.Request(self.base + "/api/basket/submissions", method="POST", data=b"{}", headers={"Content-Type": "application/json", "Oak-Link": self.token})
        self.submission = json.load(urllib.request.urlopen(request))["submission"]

    def headers(self, name, length):
        metadata = "filename " + base64.b64encode(name.encode()).decode() + ",item " + base64.b64encode(b"1").decode()
        return {"Oak-Link": self.token, "Oak-Submission": self.submission, "Tus-Resumable": "1.0.0", "Upload-Length": str(length), "Upload-Metadata": metadata}

    def large(self, connection, name, body, length):
        connection.request("POST", "/api/uploads", headers={**self.headers(name, length), "Content-Length": "0"})
        answer = connection.getresponse()
        answer.read()
        assert answer.status == 201, answer.status
        connection.request("PATCH", answer.getheader("Location"), body=body, headers={"Tus-Resumable": "1.0.0", "Upload-Offset": "0",
                           "Content-Type": "application/offset+octet-stream", "Content-Length": str(length)})
        answer = connection.getresponse()
        answer.read()
        assert answer.status == 204, answer.status

    def small(self, connection, name, body):
        connection.request("POST", "/api/uploads", body=body, headers={**self.headers(name, len(body)), "Content-Type": "application/offset+octet-stream"})
        answer = connection.getresponse()
        text = answer.read()
        assert answer.status == 201, text

    def together(self, connection, names, body):
        """Several small files in one request, as the page of senders sends them."""
        index = json.dumps([{"item": 1, "name": name, "bytes": len(body), "once": name} for name in names]).encode()
        connection.request("POST", "/api/basket/files", body=index + body * len(names), headers={"Oak-Link": self.token, "Oak-Submission": self.submission, "Oak-Index": str(len(index)),
                           "Content-Type": "application/octet-stream"})
        answer = connection.getresponse()
        text = answer.read()
        assert answer.status == 200 and not any(one["problem"] for one in json.loads(text)), text

    def finish(self):
        request = urllib.request.Request(self.base + "/api/basket/submissions/finish", method="POST", data=b"{}",
                                         headers={"Content-Type": "application/json", "Oak-Submission": self.submission})
        return json.load(urllib.request.urlopen(request))

    def peak_mebibytes(self):
        for line in open(f"/proc/{self.process.pid}/status"):
            if line.startswith("VmHWM"):
                return int(line.split()[1]) // 1024


def wait_for(port):
    for _ in range(300):
        try:
            socket.create_connection(("127.0.0.1", port), 1).close()
            return
        except OSError:
            time.sleep(0.1)
    sys.exit("nothing answers")


def wait_until_ready(base):
    for _ in range(900):
        try:
            urllib.request.urlopen(base + "/actuator/health", timeout=2)
            return
        except OSError:
            time.sleep(0.1)
    sys.exit("the product did not start")


def flush(path):
    for one, flags in ((path, os.O_RDWR), (os.path.dirname(path), os.O_RDONLY)):
        handle = os.open(one, flags)
        os.fsync(handle)
        os.close(handle)


def hash_with(tool, path):
    command = {"sha256sum": ["sha256sum", path], "openssl": ["openssl", "dgst", "-sha256", path]}[tool]
    return subprocess.run(command, capture_output=True, text=True, check=True).stdout


def timed(work):
    start = time.perf_counter()
    work()
    return time.perf_counter() - start


class Source:
    """Bytes sent as they lie in memory, in pieces, so that reading a disk is no part of the measurement."""

    def __init__(self, piece, length):
        self.piece, self.left = piece, length

    def read(self, size=-1):
        if self.left <= 0:
            return b""
        part = self.piece[: min(len(self.piece), self.left)]
        self.left -= len(part)
        return part


def connect(port):
    return http.client.HTTPConnection("127.0.0.1", port, blocksize=1 << 20)


def large(product, nginx, piece):
    times = {"product": [], "sha256sum": [], "openssl": []}
    for n in range(-1, ROUNDS):
        row = {}
        product.begin()
        connection = connect(product.port)
        row["product"] = timed(lambda: (product.large(connection, f"large{n}.bin", Source(piece, BYTES), BYTES), product.finish()))
        shutil.rmtree(product.data + "/files/Bench", ignore_errors=True)
        for tool in ("sha256sum", "openssl"):
            connection = connect(nginx.port)

            def pair():
                path = nginx.put(connection, f"large{n}.bin", Source(piece, BYTES), BYTES)
                hash_with(tool, path)
                flush(path)
                os.unlink(path)
            row[tool] = timed(pair)
        if n >= 0:
            for key, value in row.items():
                times[key].append(value)
    for tool in ("sha256sum", "openssl"):
        ratios = sorted(other / own for other, own in zip(times[tool], times["product"]))
        print(f"large file, {BYTES >> 20} MiB: Oak Basket is {statistics.median(ratios):.2f} times as fast as nginx PUT + {tool} + flush "
              f"(each round: {', '.join(f'{r:.2f}' for r in ratios)})")
    print(f"  seconds, median: Oak Basket {statistics.median(times['product']):.2f}, sha256sum pair {statistics.median(times['sha256sum']):.2f}, openssl pair {statistics.median(times['openssl']):.2f}")
    print(f"  peak resident memory of Oak Basket so far: {product.peak_mebibytes()} MiB")


def small(product, nginx):
    body = os.urandom(SMALL)
    own, grouped, other = [], [], []
    for n in range(SMALL_ROUNDS + 1):
        product.begin()
        connection = connect(product.port)
        names = [f"g{n}f{i}.bin" for i in range(FILES)]
        c = timed(lambda: ([product.together(connection, names[i:i + 64], body) for i in range(0, FILES, 64)], product.finish()))
        product.begin()
        connection = connect(product.port)
        a = timed(lambda: ([product.small(connection, f"r{n}f{i}.bin", body) for i in range(FILES)], product.finish()))
        connection = connect(nginx.port)

        def pairs():
            for i in range(FILES):
                path = nginx.put(connection, f"r{n}f{i}.bin", body, SMALL)
                hash_with("sha256sum", path)
                flush(path)
        b = timed(pairs)
        if n > 0:
            grouped.append(FILES / c)
            own.append(FILES / a)
            other.append(FILES / b)
    ratios = sorted(a / b for a, b in zip(grouped, other))
    print(f"small files, {FILES} of {SMALL >> 10} KiB, 64 in a request one after another: {statistics.median(grouped):.0f} files/s, nginx pair {statistics.median(other):.0f} files/s, "
          f"ratio {statistics.median(ratios):.2f} (each round: {', '.join(f'{r:.2f}' for r in ratios)})")
    ratios = sorted(a / b for a, b in zip(own, other))
    print(f"small files, {FILES} of {SMALL >> 10} KiB, one after another: {statistics.median(own):.0f} files/s, nginx pair {statistics.median(other):.0f} files/s, "
          f"ratio {statistics.median(ratios):.2f} (each round: {', '.join(f'{r:.2f}' for r in ratios)})")
    print(f"  peak resident memory of Oak Basket so far: {product.peak_mebibytes()} MiB")


def huge(product, piece):
    product.begin()
    connection = connect(product.port)
    product.large(connection, "huge.bin", Source(piece, HUGE), HUGE)
    digest = hashlib.sha256()
    source = Source(piece, HUGE)
    while part := source.read():
        digest.update(part)
    assert product.finish()["files"][0]["sha256"] == digest.hexdigest()
    print(f"{HUGE >> 30} GiB with -Xmx256m: received, hash right; peak resident memory {product.peak_mebibytes()} MiB")


def against_earlier(now, earlier, piece):
    """The same sendings through this build and an earlier one, in turn."""
    body = os.urandom(SMALL)
    ratios = {"large": [], "small": []}
    for n in range(-1, ROUNDS):
        times = {}
        for product in (now, earlier):
            product.begin()
            connection = connect(product.port)
            a = timed(lambda: (product.large(connection, f"large{n}.bin", Source(piece, BYTES), BYTES), product.finish()))
            product.begin()
            connection = connect(product.port)
            b = timed(lambda: ([product.small(connection, f"r{n}f{i}.bin", body) for i in range(FILES)], product.finish()))
            shutil.rmtree(product.data + "/files/Bench", ignore_errors=True)
            times[product] = (a, b)
        if n >= 0:
            ratios["large"].append(times[earlier][0] / times[now][0])
            ratios["small"].append(times[earlier][1] / times[now][1])
    for kind, all_rounds in ratios.items():
        print(f"{kind}: this build is {statistics.median(all_rounds):.2f} times as fast as the earlier one (each round: {', '.join(f'{r:.2f}' for r in sorted(all_rounds))})")


folder = tempfile.mkdtemp(prefix="oak-bench-", dir=os.environ.get("BENCH_FOLDER"))
product = nginx = earlier = None
try:
    product = Product(folder)
    piece = os.urandom(1 << 20)
    if EARLIER:
        earlier = Product(folder, EARLIER)
        against_earlier(product, earlier, piece)
    else:
        nginx = Nginx(folder)
        large(product, nginx, piece)
        small(product, nginx)
    if HUGE:
        huge(product, piece)
finally:
    for running in (product, nginx, earlier):
        if running:
            running.process.terminate()
            running.process.wait()
    shutil.rmtree(folder, ignore_errors=True)
