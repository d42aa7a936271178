<?php

declare(strict_types=1);

namespace NineTally\Core\Landing;

use NineTally\Core\Matching\Spill\SortedRuns;
use NineTally\Core\Matching\Spill\SortedRunWriter;
use NineTally\Core\Row\Excerpt;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;

/**
 * Where the rows of a delivery went that several datasets use: into none of them, into one, or into several. Of the same bytes a row is
 * known by its place; of different deliveries by its own cells, so that rows that are alike are one. Rows are sorted on disk and merged, so
 * that memory is bounded.
 *
 * @phpstan-import-type Run from SortedRuns
 *
 * @phpstan-type Told array{part: int, line: int, text: string, in: list<string>, leftOutBy: list<array{dataset: string, step: int}>}
 * @phpstan-type Shared array{rows: int, refused: int, none: int, one: int, several: int, told: array{none: list<Told>,
 *     several: list<Told>}}
 */
final class SharedRows
{
    public const TOLD = 200;

    private const BYTES = 8_388_608;

    private const OF_EACH = 160;

    /** Between the parts of what stands with a row: no text holds this byte. */
    private const PART = "\xFD";

    private const TEXT = 200;

    /** @var array<string, string> by the row: dataset, landed or the step, place, and how it begins */
    private array $held = [];

    private int $bytes = 0;

    private readonly SortedRunWriter $file;

    /** @var list<Run> */
    private array $runs = [];

    private int $refused = 0;

    /** @param callable(): void $onProgress called now and then; whoever wants to end it throws there */
    private function __construct(private readonly string $path, private readonly mixed $onProgress)
    {
        $this->file = new SortedRunWriter($path);
    }

    /**
     * @param  non-empty-list<SharedDelivery>  $deliveries
     * @param  bool  $byPlace  whether they are the same bytes
     * @param  string  $path  of a file that is written aside
     * @param  callable(): void  $onProgress  called now and then; whoever wants to end it throws there
     * @return Shared
     */
    public static function of(array $deliveries, bool $byPlace, string $path, callable $onProgress): array
    {
        $rows = new self($path, $onProgress);
        foreach ($deliveries as $number => $delivery) {
            $rows->put($delivery, $number, $byPlace);
        }

        return $rows->merged(array_map(static fn(SharedDelivery $delivery): string => $delivery->name, $deliveries));
    }

    private function put(SharedDelivery $delivery, int $number, bool $byPlace): void
    {
        $leftOut = LeftOutLines::of($delivery->prepared, $this->onProgress);
        $read = 0;
        foreach ($delivery->stack->records() as $packedPlace => $record) {
            $read++ % 1_000 === 0 && ($this->onProgress)();
            if ($record instanceof RefusedRecord) {
                $this->refused += $number === 0 || ! $byPlace ? 1 : 0;

                continue;
            }
            $step = $leftOut->stepOf(RecordPlace::ofPacked($packedPlace));
            $key = $byPlace ? sprintf('%016x', $packedPlace) : hash('xxh128', implode("\xFF", $record));
            $text = Excerpt::of(mb_strcut(implode(' | ', $record), 0, self::TEXT));
            $this->hold("{$key}\xFC{$number}", implode(self::PART, [$step ?? 0, $packedPlace, $text]), $step === null);
        }
        $this->flush();
    }

    /** Of rows that are alike in one delivery one that landed speaks for all. */
    private function hold(string $key, string $value, bool $hasLanded): void
    {
        if (! isset($this->held[$key])) {
            $this->bytes += strlen($key) + strlen($value) + self::OF_EACH;
            $this->held[$key] = $value;
        } elseif ($hasLanded) {
            $this->held[$key] = $value;
        }
        if ($this->bytes > self::BYTES) {
            $this->flush();
        }
    }

    private function flush(): void
    {
        if ($this->held !== []) {
            $this->runs[] = ['path' => $this->path, ...$this->file->write($this->held)];
        }
        $this->held = [];
        $this->bytes = 0;
    }

    /**
     * @param  non-empty-list<string>  $names  of the datasets
     * @return Shared
     */
    private function merged(array $names): array
    {
        $this->file->finish();
        $shared = [
            'rows' => 0, 'refused' => $this->refused, 'none' => 0, 'one' => 0, 'several' => 0, 'told' => ['none' => [], 'several' => []],
        ];
        $of = null;
        $seen = 0;
        /** @var array<int, array{int, int, string}> $met by dataset: step, place and text */
        $met = [];
        foreach (SortedRuns::merged($this->runs) as $key => $value) {
            $seen++ % 1_000 === 0 && ($this->onProgress)();
            [$row, $number] = explode("\xFC", $key);
            if ($of !== null && $row !== $of) {
                $shared = $this->counted($shared, $met, $names);
                $met = [];
            }
            $of = $row;
            [$step, $place, $text] = explode(self::PART, $value);
            // Rows that are alike may stand in several runs.
            if (! isset($met[(int) $number]) || (int) $step === 0) {
                $met[(int) $number] = [(int) $step, (int) $place, $text];
            }
        }

        return $of === null ? $shared : $this->counted($shared, $met, $names);
    }

    /**
     * @param  Shared  $shared
     * @param  array<int, array{int, int, string}>  $met
     * @param  non-empty-list<string>  $names
     * @return Shared
     */
    private function counted(array $shared, array $met, array $names): array
    {
        ksort($met);
        $landed = array_filter($met, static fn(array $one): bool => $one[0] === 0);
        $list = match (count($landed)) {
            0 => 'none', 1 => 'one', default => 'several'
        };
        $shared['rows']++;
        $shared[$list]++;
        if ($list !== 'one' && count($shared['told'][$list]) < self::TOLD) {
            [, $packedPlace, $text] = $met[array_key_first($met) ?? 0];
            $place = RecordPlace::ofPacked($packedPlace);
            $leftOut = array_diff_key($met, $landed);
            $shared['told'][$list][] = [
                'part' => $place->part,
                'line' => $place->line,
                'text' => $text,
                'in' => array_map(static fn(int $number): string => $names[$number], array_keys($landed)),
                'leftOutBy' => array_map(
                    static fn(int $number, array $one): array => ['dataset' => $names[$number], 'step' => $one[0]],
                    array_keys($leftOut),
                    $leftOut,
                ),
            ];
        }

        return $shared;
    }
}
