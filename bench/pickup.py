"""The measurement behind pickup.sh: a parcel taken away by many at once, beside nginx, in turn, in one run."""
import hashlib, http.cookiejar, json, os, shutil, socket, statistics, subprocess, tempfile, threading, time, urllib.request

AT_ONCE = int(os.environ.get("AT_ONCE", "100"))
BYTES = int(os.environ.get("MIB", "1024")) << 20
ROUNDS = int(os.environ.get("ROUNDS", "3"))
WARM = int(os.environ.get("WARM", "6"))
FILES = int(os.environ.get("FILES", "10000"))
PART = 64 << 20
JAR = "server/target/oak-basket-app.jar"


def free_port():
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return s.getsockname()[1]


class Desk:
    def __init__(self, base):
        self.base, self.jar = base, http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.call("GET", "/api/session")
        self.call("POST", "/api/session", {"email": "coordinator@example.org", "password": "river oak basket"})

    def call(self, method, path, body=None, kind="application/json"):
        data = None if body is None else body if isinstance(body, (bytes, bytearray, memoryview)) else json.dumps(body).encode()
        headers = {"Content-Type": kind}
        headers.update({"X-XSRF-TOKEN": c.value for c in self.jar if c.name == "XSRF-TOKEN"})
        with self.opener.open(urllib.request.Request(self.base + path, method=method, headers=headers, data=data)) as answer:
            text = answer.read()
        return json.loads(text) if text else None

    def parcel(self, title, files):
        """Hands files out to anybody; gives the token of the link."""
        parcel = self.call("POST", "/api/parcels", b"")["id"]
        for start in range(0, len(files), 2000):
            some = files[start:start + 2000]
            places = self.call("POST", f"/api/parcels/{parcel}/files", {"files": [{"name": name, "bytes": size} for name, size, _ in some]})
            for place, (_, size, content) in zip(places, some):
                for at in range(0, size, PART):
                    self.call("POST", f"/api/parcels/{parcel}/files/{place['id']}/bytes?at={at}", content(at, min(PART, size - at)), "application/octet-stream")
        full = self.call("GET", f"/api/parcels/{parcel}")
        self.call("PUT", f"/api/parcels/{parcel}", {"version": full["version"], "title": title, "message": "", "days": 14, "keptDays": 30, "open": True, "byLetter": False, "whenReady": True, "people": [], "reminders": []})
        while True:
            full = self.call("GET", f"/api/parcels/{parcel}")
            if full["parcel"]["state"] == "LIVE":
                return full["ways"][0]["path"].rsplit("/", 1)[1]
            time.sleep(1)


def wait_until(base, path):
    for _ in range(300):
        try:
            urllib.request.urlopen(base + path).read()
            return
        except Exception:
            time.sleep(0.3)
    raise SystemExit("It did not start")


def resident(pid):
    with open(f"/proc/{pid}/status") as status:
        return next(int(line.split()[1]) for line in status if line.startswith("VmRSS")) // 1024


def at_once(url, command):
    """Runs as many at once; gives seconds and what each said."""
    start = time.monotonic()
    running = [subprocess.Popen(["bash", "-c", command.replace("curl", f"curl --interface 127.0.0.{2 + n % 100}").replace("URL", url)], stdout=subprocess.PIPE) for n in range(AT_ONCE)]
    said = [one.communicate()[0].decode().split()[0] for one in running]
    return time.monotonic() - start, said


def main():
    folder = tempfile.mkdtemp()
    os.chmod(folder, 0o755)
    port, nginx_port = free_port(), free_port()
    base = f"http://127.0.0.1:{port}"
    product = subprocess.Popen(["java", "-Xmx256m", "-jar", JAR, f"--server.port={port}", f"--oakbasket.data={folder}/oak", "--oakbasket.demo=true"], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    other = None
    try:
        wait_until(base, "/actuator/health/readiness")
        block = os.urandom(1 << 20)
        os.makedirs(folder + "/nginx/files")
        digest = hashlib.sha256()
        with open(folder + "/nginx/files/large.bin", "wb") as out:
            for _ in range(BYTES >> 20):
                out.write(block)
                digest.update(block)
        user = "user root;" if os.getuid() == 0 else ""
        with open(folder + "/nginx/nginx.conf", "w") as conf:
            conf.write(f"daemon off; pid {folder}/nginx/pid; error_log {folder}/nginx/error.log; worker_processes 2; {user} events {{ worker_connections 512; }} "
                       f"http {{ access_log off; sendfile on; server {{ listen 127.0.0.1:{nginx_port}; root {folder}/nginx/files; }} }}")
        other = subprocess.Popen(["nginx", "-c", folder + "/nginx/nginx.conf"], stderr=subprocess.DEVNULL)
        wait_until(f"http://127.0.0.1:{nginx_port}", "/large.bin")
        desk = Desk(base)
        token = desk.parcel("Large", [("large.bin", BYTES, lambda at, size: block * (size >> 20))])
        urls = {"nginx": f"http://127.0.0.1:{nginx_port}/large.bin", "product": f"{base}/d/{token}/all"}
        ratios = []
        # Uncounted: what runs for months is not measured while it is being compiled. On two cores, which it shares with those who take, the compiler needs that many rounds.
        for _ in range(WARM):
            at_once(urls["product"], "curl -s -o /dev/null -w '%{size_download}' URL")
        for round_ in range(ROUNDS):
            seconds = {}
            for name in (("nginx", "product") if round_ % 2 == 0 else ("product", "nginx")):
                seconds[name], said = at_once(urls[name], "curl -s -o /dev/null -w '%{size_download}' URL")
                assert all(int(one) == BYTES for one in said), said
            ratios.append(seconds["nginx"] / seconds["product"])
            print(f"round {round_ + 1}: nginx {seconds['nginx']:.1f} s, product {seconds['product']:.1f} s, bytes per second {ratios[-1]:.2f} of nginx; {resident(product.pid)} MiB resident", flush=True)
        print(f"{AT_ONCE} at once, {BYTES >> 20} MiB each: median {statistics.median(ratios):.2f} of nginx (aim 0.9)", flush=True)
        most = [resident(product.pid)]
        watching = threading.Event()
        watcher = threading.Thread(target=lambda: [most.append(resident(product.pid)) or time.sleep(0.5) for _ in iter(lambda: watching.is_set(), True)])
        watcher.start()
        _, said = at_once(urls["product"], "curl -s URL | sha256sum")
        watching.set()
        watcher.join()
        assert set(said) == {digest.hexdigest()}, set(said)
        print(f"all {AT_ONCE} hashes are equal; memory of the server {most[0]} MiB before, at most {max(most)} MiB", flush=True)
        small = [(f"file {n:05}.txt", 12, lambda at, size, n=n: b"%012d" % n) for n in range(FILES)]
        token = desk.parcel("Many", small)
        firsts = []
        for _ in range(7):
            first, total = subprocess.run(["curl", "-s", "-o", "/dev/null", "-w", "%{time_starttransfer} %{time_total}", f"{base}/d/{token}/all"], stdout=subprocess.PIPE).stdout.decode().split()
            firsts.append((float(first), float(total)))
        print(f"ZIP of {FILES} files: first byte after {statistics.median(first for first, _ in firsts) * 1000:.0f} ms (aim 300), whole after {statistics.median(total for _, total in firsts) * 1000:.0f} ms")
    finally:
        product.kill()
        if other:
            other.kill()
        shutil.rmtree(folder, ignore_errors=True)


main()
