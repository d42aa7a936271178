<?php

declare(strict_types=1);

require __DIR__.'/History.php';
require __DIR__.'/Registers.php';

/** Runs the engine and the yardsticks one after the other, round after round, and prints medians and ratios of the same round. */
final readonly class Bench
{
    private const PLAN_OF_HARD = [
        'fee' => ['kind' => 'number', 'forgives' => ['number-form']],
        'paid_until' => ['kind' => 'date', 'forgives' => ['date-form']],
        'holder' => ['forgives' => ['case']],
    ];

    public function __construct(private string $folder, private string $database, private int $rounds) {}

    /**
     * @param  list<array{int, string, int}>  $cases  rows, shape, columns
     * @param  list<string>  $runners
     */
    public function run(array $cases, array $runners): void
    {
        // What is measured beside the engine every time, if anything is.
        $yardstick = array_values(array_intersect(['DuckDB', 'PostgreSQL'], $runners))[0] ?? '';
        $history = new History(__DIR__.'/history.csv');
        $titles = [
            'rows', 'shape', 'columns', 'by', "seconds (median of {$this->rounds})", 'times as long as Nine Tally, 1 worker',
            'times as long as '.($yardstick === '' ? 'a yardstick' : $yardstick), 'peak MB a process', 'since the time before',
        ];
        printf("| %s |\n|%s\n", implode(' | ', $titles), str_repeat(' --- |', count($titles)));
        foreach ($cases as [$rows, $shape, $columns]) {
            $registers = new Registers($rows, $shape, $columns);
            $paths = $registers->write($this->folder);
            $seconds = $peaks = [];
            for ($round = 0; $round < $this->rounds; $round++) {
                foreach ($runners as $runner) {
                    [$seconds[$runner][], $peaks[$runner][]] = $this->measure($this->command($runner, $paths, $registers, $shape));
                }
            }
            foreach ($runners as $runner) {
                $isEngine = str_starts_with($runner, 'Nine Tally');
                $times = fn(string $other): float => $this->median(
                    array_map(static fn(float $own, float $of): float => $own / $of, $seconds[$runner], $seconds[$other]),
                );
                $peak = intdiv(max($peaks[$runner]), 1024);
                $median = $this->median($seconds[$runner]);
                $ratio = $yardstick === '' ? 0.0 : $times($yardstick);
                $case = ['rows' => $rows, 'shape' => $shape, 'columns' => $columns, 'by' => $runner];
                printf(
                    "| %s | %s | %d | %s | %.1f | %.2f | %s | %s | %s |\n",
                    number_format($rows),
                    $shape,
                    $columns,
                    $runner,
                    $median,
                    $times($runners[0]),
                    $yardstick === '' ? '' : number_format($ratio, 2),
                    $runner === 'PostgreSQL' ? '' : number_format($peak),
                    $isEngine ? $history->keep($case, $median, $yardstick, $ratio, $peak) : '',
                );
            }
        }
    }

    /**
     * @param  array{source: string, target: string}  $paths
     * @return list<string>
     */
    private function command(string $runner, array $paths, Registers $registers, string $shape): array
    {
        $out = "{$this->folder}/out";
        exec('rm -rf '.escapeshellarg($out));
        if (preg_match('/^Nine Tally, (\d+) worker/', $runner, $found) === 1) {
            preg_match('/(\d+M)$/', $runner, $memory);

            return [
                dirname(__DIR__).'/core/bin/nine-tally',
                'tally',
                $paths['source'],
                $paths['target'],
                '--plan='.$this->plan($paths, $registers, $shape),
                "--out={$out}",
                '--quiet',
                "--workers={$found[1]}",
                '--memory='.($memory[1] ?? '256M'),
            ];
        }
        if ($runner === 'DuckDB') {
            return ['node', __DIR__.'/duckdb.mjs', $paths['source'], $paths['target'], "{$out}.csv", $shape];
        }
        $script = shell_exec(
            implode(
                ' ',
                array_map(escapeshellarg(...), [
                    'node',
                    __DIR__.'/postgresql.mjs',
                    $paths['source'],
                    $paths['target'],
                    "{$this->folder}/postgresql/out.csv",
                    $shape,
                ]),
            ),
        );
        file_put_contents("{$this->folder}/script.sql", (string) $script);

        return ['psql', '-X', '-q', '-v', 'ON_ERROR_STOP=1', $this->database, '-f', "{$this->folder}/script.sql"];
    }

    /** @param array{source: string, target: string} $paths */
    private function plan(array $paths, Registers $registers, string $shape): string
    {
        $pairs = [];
        foreach (array_slice(explode(',', trim((string) fgets(fopen($paths['source'], 'rb')))), 2) as $number => $name) {
            $pairs[] = [
                'id' => sprintf('pair-%012x', $number),
                'source' => $name,
                'target' => $registers->map()[$name] ?? $name,
                ...$shape === 'hard' ? self::PLAN_OF_HARD[$name] ?? [] : [],
            ];
        }
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        file_put_contents(
            "{$this->folder}/plan.json",
            json_encode(
                [
                    'formatVersion' => 3,
                    'key' => [$same('basin'), $same('berth')],
                    'columnPairs' => $pairs,
                    ...$shape === 'hard' ? ['sides' => ['target' => ['dateForms' => ['dd/MM/yyyy']]]] : [],
                ],
                JSON_THROW_ON_ERROR,
            ),
        );

        return "{$this->folder}/plan.json";
    }

    /**
     * @param  list<string>  $command
     * @return array{float, int} seconds, and KB of the largest process at its peak (VmHWM, as the kernel counts it for ended children)
     */
    private function measure(array $command): array
    {
        $began = microtime(true);
        exec(
            '/usr/bin/time -f "%M" -o '.
                escapeshellarg("{$this->folder}/peak").
                ' '.
                implode(' ', array_map(escapeshellarg(...), $command)).
                ' 2>&1',
            $answer,
            $status,
        );
        if ($status > 1) {
            throw new RuntimeException(implode("\n", [...$answer, implode(' ', $command)]));
        }

        return [
            microtime(true) - $began,
            (int) preg_replace('/\D+/', '', (string) array_slice(file("{$this->folder}/peak") ?: ['0'], -1)[0]),
        ];
    }

    /** @param list<float> $values */
    private function median(array $values): float
    {
        sort($values);

        return $values[intdiv(count($values), 2)];
    }
}
