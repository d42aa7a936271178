<?php

declare(strict_types=1);

/*
 * Ten files that mean harm are brought in at once, by a program with a token, and the board is asked all the while: bin/hostile, on an
 * installation of its own with the demo in it.
 */

use App\Models\User;
use Illuminate\Contracts\Console\Kernel;

require dirname(__DIR__).'/vendor/autoload.php';
$application = require dirname(__DIR__).'/bootstrap/app.php';
$application->make(Kernel::class)->bootstrap();

const CHUNK = 4_000_000;
const MEGABYTE = 1 << 20;
$port = $argv[1];
$person = User::query()->where('email', 'like', 'analyst@%')->firstOrFail();
$token = $person->createToken('hostile', ['view', 'work'], now()->addDay())->plainTextToken;

$zipped = static function (string $name, string $bytes, int $times): string {
    $path = (string) tempnam(sys_get_temp_dir(), 'hostile');
    $zip = new ZipArchive;
    $zip->open($path, ZipArchive::OVERWRITE);
    for ($nth = 0; $nth < $times; $nth++) {
        $zip->addFromString(str_replace('#', (string) $nth, $name), $bytes);
    }
    $zip->close();
    $made = (string) file_get_contents($path);
    unlink($path);

    return $made;
};
$gzip = (string) gzencode(str_repeat("KB,1,a\n", 40 * MEGABYTE), 9);
$sheet = '<worksheet><sheetData>'.str_repeat('<row><c t="inlineStr"><is><t>x</t></is></c></row>', MEGABYTE);
$files = [
    'burst.csv.gz' => $gzip,
    'burst.zip' => $zipped('part-#.csv', str_repeat("a,b\n", 4 * MEGABYTE), 20),
    'burst.xlsx' => $zipped('xl/worksheets/sheet#.xml', $sheet, 3),
    'deep.json' => str_repeat('[', 12 * MEGABYTE),
    'endless.json' => '[{"a": "'.str_repeat('x', 12 * MEGABYTE),
    'wide.json' => '[{'.substr(str_repeat('"a":1,', 2 * MEGABYTE), 0, -1).'}]',
    'deep.xml' => str_repeat('<a>', 4 * MEGABYTE),
    'entities.xml' => '<!DOCTYPE a [<!ENTITY b "'.str_repeat('b', 1000).'"><!ENTITY c "'.str_repeat('&b;', 1000).'"><!ENTITY d "'.
        str_repeat('&c;', 1000).'">]><a><r>&d;</r></a>',
    'columns.csv' => str_repeat(',', 12 * MEGABYTE)."\n".str_repeat(',', 12 * MEGABYTE)."\n",
    'quote.csv' => "a,b\n\"".str_repeat("x,\n", 4 * MEGABYTE),
];

/** @return array{int, mixed, float} status, answer, seconds */
function asked(string $port, string $token, string $method, string $path, string $body = '', string $type = 'application/json'): array
{
    $began = microtime(true);
    $answer = @file_get_contents("http://127.0.0.1:{$port}/api/v1{$path}", false, stream_context_create(['http' => [
        'method' => $method, 'ignore_errors' => true, 'timeout' => 60, 'content' => $body,
        'header' => "Accept: application/json\r\nContent-Type: {$type}\r\nAuthorization: Bearer {$token}",
    ]]));

    return [(int) substr($http_response_header[0] ?? '', 9, 3), json_decode((string) $answer, true), microtime(true) - $began];
}

// The first request of a fresh server compiles what it needs; that is none of these files' doing.
asked($port, $token, 'GET', '/migrations/1/board');
$children = [];
foreach ($files as $name => $bytes) {
    if (($child = pcntl_fork()) === 0) {
        try {
            $said = json_encode(['side' => 'source', 'fileName' => $name, 'bytes' => strlen($bytes)], JSON_THROW_ON_ERROR);
            [$status, $receipt] = asked($port, $token, 'POST', '/datasets/1/receipts', $said);
            for ($at = 0; $status < 400 && $at < strlen($bytes); $at += CHUNK) {
                [$status, $answer] = asked(
                    $port,
                    $token,
                    'PUT',
                    "/receipts/{$receipt['id']}/chunks/{$at}",
                    substr($bytes, $at, CHUNK),
                    'application/octet-stream',
                );
            }
            $began = microtime(true);
            do {
                usleep(500_000);
                [$status, $answer] = asked($port, $token, 'GET', "/receipts/{$receipt['id']}");
            } while (in_array($answer['state'] ?? '', ['receiving', 'looking'], true) && microtime(true) - $began < 120);
            printf(
                "%-14s %6.1f MB, after %5.1f s %s %s\n",
                $name,
                strlen($bytes) / MEGABYTE,
                microtime(true) - $began,
                $answer['state'] ?? $status,
                substr((string) ($answer['problem'] ?? ''), 0, 90),
            );
        } finally {
            posix_kill(posix_getpid(), SIGKILL);
        }
    }
    $children[] = $child;
}
$seconds = [];
$wrong = 0;
while ($children !== []) {
    [$status, , $took] = asked($port, $token, 'GET', '/migrations/1/board');
    $seconds[] = $took;
    $wrong += $status === 200 ? 0 : 1;
    usleep(100_000);
    $children = array_filter($children, static fn(int $child): bool => pcntl_waitpid($child, $gone, WNOHANG) === 0);
}
sort($seconds);
printf(
    "the board, asked %d times: median %.3f s, slowest %.3f s, %d not answered\n",
    count($seconds),
    $seconds[intdiv(count($seconds), 2)],
    end($seconds),
    $wrong,
);
exit($wrong === 0 && end($seconds) < 1.0 ? 0 : 1);
