<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Row\Side;

/** How rows that did not agree divide within their class: by reason, by the part of each side that they came in, by how they met. */
final class RowSlices
{
    /** @var array<value-of<RowClass>, array<value-of<RowReason>, int>> rows by class and reason, where one is known */
    public array $reasons = [];

    /** @var array<value-of<RowClass>, array<value-of<Side>, array<int, int>>> rows by class, side and number of the part */
    public array $parts = [];

    /** @var array<value-of<RowClass>, int> rows by class that met by a bridge */
    public array $bridged = [];

    public function see(RowFinding $row): void
    {
        $class = $row->class->value;
        if ($row->reason !== null) {
            $this->reasons[$class][$row->reason->value] = ($this->reasons[$class][$row->reason->value] ?? 0) + 1;
        }
        $refused = $row->refused?->part;
        $this->count(
            $row->class,
            $row->source->part ?? ($row->side === Side::Source ? $refused : null),
            $row->target->part ?? ($row->side === Side::Target ? $refused : null),
            $row->isBridged,
        );
    }

    /** A row without a reason, by the number of the part on each side that has one. */
    public function count(RowClass $class, ?int $source, ?int $target, bool $isBridged): void
    {
        foreach (['source' => $source, 'target' => $target] as $side => $part) {
            if ($part !== null) {
                $this->parts[$class->value][$side][$part] = ($this->parts[$class->value][$side][$part] ?? 0) + 1;
            }
        }
        if ($isBridged) {
            $this->bridged[$class->value] = ($this->bridged[$class->value] ?? 0) + 1;
        }
    }

    /** Those of a slice that comes behind these. */
    public function take(self $later): void
    {
        foreach ($later->reasons as $class => $reasons) {
            foreach ($reasons as $reason => $rows) {
                $this->reasons[$class][$reason] = ($this->reasons[$class][$reason] ?? 0) + $rows;
            }
        }
        foreach ($later->parts as $class => $sides) {
            foreach ($sides as $side => $parts) {
                foreach ($parts as $part => $rows) {
                    $this->parts[$class][$side][$part] = ($this->parts[$class][$side][$part] ?? 0) + $rows;
                }
            }
        }
        foreach ($later->bridged as $class => $rows) {
            $this->bridged[$class] = ($this->bridged[$class] ?? 0) + $rows;
        }
    }

    /** @return object class => side => number of the part => rows, as JSON objects */
    public function partsAsObject(): object
    {
        return (object) array_map(
            static fn(array $sides): object => (object) array_map(static function (array $parts): object {
                ksort($parts);

                return (object) $parts;
            }, $sides),
            $this->parts,
        );
    }
}
