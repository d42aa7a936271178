<?php

declare(strict_types=1);

/**
 * What was measured at which commit, one line each in a file of the repository, so that a slower commit is seen. Seconds of different days
 * say little on a shared machine: what is held against the time before is the ratio to a yardstick of the same rounds.
 */
final readonly class History
{
    private const COLUMNS = ['day', 'commit', 'rows', 'shape', 'columns', 'by', 'seconds', 'yardstick', 'ratio', 'peak MB'];

    public function __construct(private string $path) {}

    /**
     * @param  array{rows: int, shape: string, columns: int, by: string}  $case
     * @param  string  $yardstick  '' where there was none: then nothing is compared
     * @return string what is told of the time before; '' where there was none
     */
    public function keep(array $case, float $seconds, string $yardstick, float $ratio, int $peak): string
    {
        $before = $yardstick === '' ? null : $this->last([...array_map(strval(...), array_values($case)), $yardstick]);
        $isNew = ! is_file($this->path);
        $file = fopen($this->path, 'ab') ?: throw new RuntimeException("{$this->path} cannot be written.");
        if ($isNew) {
            fputcsv($file, self::COLUMNS, ',', '"', '');
        }
        $measured = [number_format($seconds, 2, '.', ''), $yardstick, $yardstick === '' ? '' : number_format($ratio, 3, '.', ''), $peak];
        fputcsv($file, [gmdate('Y-m-d'), self::commit(), ...array_values($case), ...$measured], ',', '"', '');
        fclose($file);

        return $before === null
            ? ''
            : sprintf('%.2f of what it was at %s (%s)', $ratio / max(0.001, (float) $before['ratio']), $before['commit'], $before['day']);
    }

    /**
     * @param  list<string>  $case  rows, shape, columns, by, yardstick
     * @return array<string, string>|null
     */
    private function last(array $case): ?array
    {
        $found = null;
        foreach (is_file($this->path) ? array_slice(file($this->path, FILE_IGNORE_NEW_LINES) ?: [], 1) : [] as $line) {
            $fields = array_combine(self::COLUMNS, array_map(strval(...), str_getcsv($line, ',', '"', '')));
            if ([$fields['rows'], $fields['shape'], $fields['columns'], $fields['by'], $fields['yardstick']] === $case) {
                $found = $fields;
            }
        }

        return $found;
    }

    /** With a mark where the files are not those of the commit. */
    private static function commit(): string
    {
        $root = escapeshellarg(dirname(__DIR__));
        $isChanged = trim((string) shell_exec("git -C {$root} status --porcelain core")) !== '';

        return trim((string) shell_exec("git -C {$root} rev-parse --short HEAD")).($isChanged ? ' and changes' : '');
    }
}
