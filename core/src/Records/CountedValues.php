<?php

declare(strict_types=1);

namespace NineTally\Core\Records;

use NineTally\Core\Matching\Spill\SortedRuns;
use NineTally\Core\Matching\Spill\SortedRunWriter;
use NineTally\Core\Row\KeyTuple;

/**
 * The distinct values of some columns, in the order of their canonical writing: each with how often it stands there, and with how and in
 * which row it stood there first. Memory is bounded however many there are.
 *
 * @phpstan-import-type Run from SortedRuns
 *
 * @phpstan-type Counted array{count: int, values: list<string>, first: list<string>}
 */
final class CountedValues
{
    /** Of the values that are held until they are written. */
    private const BYTES = 8_388_608;

    /** What holding one costs beside its bytes. */
    private const OF_EACH = 200;

    /** Between the parts of what stands with a value, and between cells there: no text holds these bytes. */
    private const PART = "\xFD";

    private const CELL = "\xFC";

    /** @var array<string, array{int, string}> by canonical value: how often, and what stands with it */
    private array $held = [];

    private int $bytes = 0;

    private readonly SortedRunWriter $file;

    /** @var list<Run> */
    private array $runs = [];

    public function __construct(private readonly string $path)
    {
        $this->file = new SortedRunWriter($path);
    }

    /**
     * @param  list<string>  $canonical
     * @param  list<string>  $values  as they stand
     * @param  list<string>  $first  by which their row is found again
     */
    public function add(array $canonical, array $values, array $first): void
    {
        $key = implode(KeyTuple::SEPARATOR, $canonical);
        if (isset($this->held[$key])) {
            $this->held[$key][0]++;

            return;
        }
        $with = implode(self::CELL, $values).self::PART.implode(self::CELL, $first);
        $this->held[$key] = [1, $with];
        $this->bytes += strlen($key) + strlen($with) + self::OF_EACH;
        if ($this->bytes > self::BYTES) {
            $this->flush();
        }
    }

    /** @return \Generator<string, Counted> by canonical value, in the order of bytes */
    public function all(): \Generator
    {
        $this->flush();
        $this->file->finish();
        $key = null;
        $counted = ['count' => 0, 'values' => [], 'first' => []];
        foreach (SortedRuns::merged($this->runs) as $next => $written) {
            [$count, $values, $first] = explode(self::PART, $written);
            if ($next === $key) {
                $counted['count'] += (int) $count;

                continue;
            }
            if ($key !== null) {
                yield $key => $counted;
            }
            $key = $next;
            $counted = ['count' => (int) $count, 'values' => explode(self::CELL, $values), 'first' => explode(self::CELL, $first)];
        }
        if ($key !== null) {
            yield $key => $counted;
        }
    }

    private function flush(): void
    {
        if ($this->held === []) {
            return;
        }
        $this->runs[] = [
            'path' => $this->path,
            ...$this->file->write(array_map(static fn(array $one): string => $one[0].self::PART.$one[1], $this->held)),
        ];
        $this->held = [];
        $this->bytes = 0;
    }
}
