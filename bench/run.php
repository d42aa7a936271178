<?php

declare(strict_types=1);

// php run.php FOLDER DATABASE ROUNDS small|large|shapes|huge: see bin/bench.
require __DIR__.'/Bench.php';

ini_set('memory_limit', '1G');
[, $folder, $database, $rounds, $part] = $argv;
$bench = new Bench($folder, $database, (int) $rounds);
$all = ['Nine Tally, 1 worker', 'Nine Tally, 2 workers', 'PostgreSQL', 'DuckDB'];
match ($part) {
    'small' => $bench->run([[1_000_000, 'shuffled', 12], [1_000_000, 'hard', 12]], $all),
    'large' => $bench->run([[5_000_000, 'shuffled', 12]], [...$all, 'Nine Tally, 1 worker, 32M']),
    'shapes' => $bench->run(
        [
            [1_000_000, 'same-order', 12],
            [1_000_000, 'changed', 12],
            [1_000_000, 'missing', 12],
            [1_000_000, 'one-key', 12],
            [20_000, 'shuffled', 1_000],
        ],
        ['Nine Tally, 1 worker', 'Nine Tally, 2 workers'],
    ),
    'huge' => $bench->run([[20_000_000, 'shuffled', 12]], ['Nine Tally, 2 workers']),
    default => throw new InvalidArgumentException($part),
};
