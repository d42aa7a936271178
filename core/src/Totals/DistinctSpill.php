<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Matching\Spill\SortedRunWriter;
use NineTally\Core\Row\KeyTuple;

/**
 * The distinct values of a stretch of a side, put aside in sorted runs, so that memory is bounded however many there are;
 * {@see DistinctValues} merges them.
 */
final class DistinctSpill
{
    /** Of the values that are held until they are written. */
    private const BYTES = 8_388_608;

    /** What holding one costs beside its bytes. */
    private const OF_EACH = 100;

    /** @var array<int, array<string, string>> by total, and by group and value as they meet: the least of how it is written */
    private array $held = [];

    private int $bytes = 0;

    private readonly SortedRunWriter $file;

    /** @var list<array{total: int, file: string, offset: int, bytes: int}> */
    private array $runs = [];

    public function __construct(private readonly string $path)
    {
        $this->file = new SortedRunWriter($path);
    }

    public function add(int $total, string $group, string $canonical, string $value): void
    {
        $key = $group.KeyTuple::SEPARATOR.$canonical;
        if (isset($this->held[$total][$key])) {
            if (strcmp($value, $this->held[$total][$key]) < 0) {
                $this->held[$total][$key] = $value;
            }

            return;
        }
        $this->held[$total][$key] = $value;
        $this->bytes += strlen($key) + strlen($value) + self::OF_EACH;
        if ($this->bytes > self::BYTES) {
            $this->flush();
        }
    }

    /** @return list<array{total: int, file: string, offset: int, bytes: int}> the runs, in the order of the side */
    public function finish(): array
    {
        $this->flush();
        $this->file->finish();

        return $this->runs;
    }

    private function flush(): void
    {
        foreach ($this->held as $total => $values) {
            $this->runs[] = ['total' => $total, 'file' => basename($this->path), ...$this->file->write($values)];
        }
        $this->held = [];
        $this->bytes = 0;
    }
}
