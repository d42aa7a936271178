<?php

declare(strict_types=1);

// Prints the ten slowest tests of some reports in the JUnit format: seconds and name.

$seconds = [];
foreach (array_slice($argv, 1) as $path) {
    $report = is_file($path) ? simplexml_load_file($path) : false;
    foreach ($report === false ? [] : $report->xpath('//testcase') ?? [] as $test) {
        $name = trim(basename(strtr((string) ($test['class'] ?? $test['classname'] ?? ''), '\\', '/')).': '.$test['name'], ': ');
        $seconds[$name] = max($seconds[$name] ?? 0.0, (float) $test['time']);
    }
}
arsort($seconds);
foreach (array_slice($seconds, 0, 10, true) as $name => $time) {
    printf("  %6.2f s  %s\n", $time, mb_strimwidth($name, 0, 120, '…'));
}
