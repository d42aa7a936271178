<?php

declare(strict_types=1);

namespace NineTally\Core\Tally\Trial;

use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Matching\RowSets\GroupParts;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * Takes the rows of both sides aside whose key stands more than once on at least one of them: no other row is touched by what becomes of
 * repeats, but for a row that a bridge would join to one of these. Reads both sides twice; memory is bounded by a part of all keys and the
 * hashes of those that repeat.
 */
final readonly class RepeatedKeyRows
{
    private const ROWS_BETWEEN_REPORTS = 5_000;

    /** @var Sides<KeyForm> */
    private Sides $forms;

    /**
     * @param  Sides<Reader>  $readers  prepared
     * @param  string  $folder  for rows and keys that are put aside
     */
    public function __construct(private Plan $plan, private Sides $readers, private string $folder, FormCombination $forms)
    {
        $this->forms = Sides::each(static fn(Side $side): KeyForm => $plan->keyForm($side, $forms));
    }

    /**
     * @param  \Closure(int): void  $onBytes  told how many bytes of both sides were read, each twice
     * @return array{Sides<RowsAside>, int} rows in the order of the deliveries, and the number of keys that repeat
     */
    public function found(\Closure $onBytes): array
    {
        $repeated = $this->repeatedKeys($onBytes);
        $wanted = $repeated + $this->bridgedTo($repeated);
        $both = $this->readers->source->bytes() + $this->readers->target->bytes();

        $rows = Sides::each(function (Side $side) use ($wanted, $onBytes, $both): RowsAside {
            $reader = $this->readers->of($side);
            $aside = new RowsAside($reader->name(), $reader->columns()->names, "{$this->folder}/rows-{$side->value}");
            $before = $both + ($side === Side::Source ? 0 : $this->readers->source->bytes());
            foreach ($this->keys($side, static fn(int $bytes) => $onBytes($before + $bytes)) as $key => $row) {
                if (isset($wanted[$key])) {
                    $aside->add($reader->place($row->line), $row->cells);
                }
            }

            return $aside;
        });

        return [$rows, count($repeated)];
    }

    /**
     * @param  \Closure(int): void  $onBytes
     * @return array<string, true> by hash of the canonical key
     */
    private function repeatedKeys(\Closure $onBytes): array
    {
        $parts = Sides::each(fn(): GroupParts => new GroupParts($this->folder));
        $before = 0;
        foreach (Side::cases() as $side) {
            foreach ($this->keys($side, static fn(int $bytes) => $onBytes($before + $bytes)) as $key => $_) {
                $parts->of($side)->put($key, '');
            }
            $before += $this->readers->of($side)->bytes();
        }
        $repeated = [];
        foreach ($parts->both() as $ofSide) {
            for ($part = 0; $part < GroupParts::PARTS; $part++) {
                $seen = [];
                foreach ($ofSide->part($part) as [$key]) {
                    if (isset($seen[$key])) {
                        $repeated[$key] = true;
                    }
                    $seen[$key] = true;
                }
            }
            $ofSide->remove();
        }

        return $repeated;
    }

    /**
     * @param  array<string, true>  $repeated
     * @return array<string, true> the other ends of bridges to these
     */
    private function bridgedTo(array $repeated): array
    {
        $others = [];
        foreach ($this->plan->bridges->confirmed as $bridge) {
            [$source, $target] = [$this->hash(Side::Source, $bridge), $this->hash(Side::Target, $bridge)];
            if (isset($repeated[$source]) || isset($repeated[$target])) {
                $others[$source] = $others[$target] = true;
            }
        }

        return $others;
    }

    private function hash(Side $side, Bridge $bridge): string
    {
        return self::hashOf($this->forms->of($side)->canonical($side === Side::Source ? $bridge->source : $bridge->target));
    }

    /**
     * @param  \Closure(int): void  $onBytes
     * @return \Generator<string, Row> by the hash of their keys; without rows whose key is blank
     */
    private function keys(Side $side, \Closure $onBytes): \Generator
    {
        $reader = $this->readers->of($side);
        $places = $reader->columns()->positionsOf($this->plan->keyNames($side));
        $bytes = $rows = 0;
        foreach ($reader->records(static function (int $read) use (&$bytes): void {
            $bytes = $read;
        }) as $row) {
            if (++$rows % self::ROWS_BETWEEN_REPORTS === 0) {
                $onBytes($bytes);
            }
            if (! $row instanceof Row) {
                continue;
            }
            $key = $this->forms->of($side)->canonical(array_map(static fn(int $place): string => $row->cells[$place], $places));
            if (trim($key, Batch::CELL_END) !== '') {
                yield self::hashOf($key) => $row;
            }
        }
    }

    private static function hashOf(string $key): string
    {
        return hash('xxh128', $key, true);
    }
}
