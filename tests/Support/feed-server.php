<?php

declare(strict_types=1);

// A feed on loopback as a stand-in for somebody's web server, good ones and bad ones; the state of a test stands in a folder.

$said = static fn(string $name): string => is_string($_SERVER[$name] ?? null) ? $_SERVER[$name] : '';
$asked = static fn(string $name, int $else): int => is_numeric($_GET[$name] ?? null) ? (int) $_GET[$name] : $else;
$path = (string) parse_url($said('REQUEST_URI'), PHP_URL_PATH);
$page = $asked('page', 1);
$folder = (string) getenv('FEED_FOLDER');
$records = static fn(int $from, int $count): array => array_map(
    // Amounts have more digits than a double.
    static fn(int $number): string => sprintf('{"berth": %d, "fee": 9007199254740993.%02d}', $number, $number),
    $count === 0 ? [] : range($from, $from + $count - 1),
);
/** @param list<string> $headers */
$json = static function (string $body, array $headers = []): void {
    header('Content-Type: application/json');
    foreach (array_filter($headers, is_string(...)) as $header) {
        header($header);
    }
    echo $body;
};
$of = static fn(int $nth): string => '['.implode(',', $nth > 3 ? [] : $records(10 * $nth - 9, $nth === 3 ? 4 : 10)).']';
$here = 'http://'.$said('HTTP_HOST');
if ($path === '/hook') {
    // A program that is told: what came is kept, and the first time it is busy.
    $isFirst = ! is_file("{$folder}/told");
    file_put_contents("{$folder}/told", json_encode([
        'time' => $said('HTTP_NINE_TALLY_TIME'), 'seal' => $said('HTTP_NINE_TALLY_SEAL'), 'body' => file_get_contents('php://input'),
    ]));
    http_response_code($isFirst ? 503 : 204);
    exit;
}
if ($said('HTTP_X_KEY') !== 'sesame' && $path !== '/other') {
    http_response_code(401);
    exit;
}
match ($path) {
    '/pages' => $json($of($page)),
    '/link' => $json($of($page), $page < 3 ? ["Link: <{$here}/link?page=".($page + 1).'>; rel="next", </link?page=1>; rel="first"'] : []),
    '/next' => $json('{"data": {"items": '.$of($page).'}, "paging": {"next": '.($page < 3 ? '"/next?page='.($page + 1).'"' : 'null').'}}'),
    '/offset' => $json('['.implode(',', $records(1 + $asked('from', 0), min(10, max(0, 24 - $asked('from', 0))))).']'),
    '/lines' => (static function (): void {
        header('Content-Type: text/csv');
        header('Content-Encoding: gzip');
        echo gzencode("berth,fee\n1,0.10\n2,0.20\n");
    })(),
    '/busy' => (static function () use ($folder, $json, $of): void {
        if (! is_file("{$folder}/asked")) {
            touch("{$folder}/asked");
            http_response_code(503);
            header('Retry-After: 1');
            exit;
        }
        $json($of(1));
    })(),
    '/marked' => (static function () use ($folder, $json, $of, $page, $said): void {
        $mark = '"'.md5($of($page)).'"';
        if ($said('HTTP_IF_NONE_MATCH') === $mark) {
            file_put_contents("{$folder}/known", "x", FILE_APPEND);
            http_response_code(304);
            exit;
        }
        $json($of($page), ["ETag: {$mark}"]);
    })(),
    '/same' => $json($of(1)),
    '/endless' => $json('{"data": {"items": ['.$records($page, 1)[0].']}, "paging": {"next": "/endless?page='.($page % 4 + 1).'"}}'),
    '/big' => (static function (): void {
        header('Content-Encoding: gzip');
        echo gzencode(str_repeat('{"berth": 1}'."\n", 500_000));
    })(),
    '/cut' => (static function (): void {
        header('Content-Length: 100000');
        echo '[{"berth": 1}';
    })(),
    '/slow' => sleep(20),
    '/away' => header("Location: http://localhost:{$said('SERVER_PORT')}/other", true, 302),
    '/inner' => header('Location: http://10.11.12.13/secrets', true, 302),
    '/other' => $json('[{"key": "'.($said('HTTP_X_KEY') ?: 'none').'"}]'),
    '/html' => print '<html>Sign in</html>',
    default => http_response_code(404),
};
