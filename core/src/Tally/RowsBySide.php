<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\RowSets\GroupParts;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * The rows of both sides, each with whether its key stands on the other side too, or a bridge says where: whatever else they say, and
 * however many there are of a key. Two passes; of all rows a byte is held, and the keys of one part.
 */
final class RowsBySide
{
    /** The key stands on this side alone. */
    public const ALONE = 'alone';

    public const BOTH = 'both';

    /** No cell of the key has a value. */
    public const UNKEYED = 'unkeyed';

    private const MARKS = [self::UNKEYED => '0', self::ALONE => '1', self::BOTH => '2'];

    private readonly TallyParts $parts;

    /** @var Sides<RowMarks> */
    private readonly Sides $marks;

    /**
     * @param  Sides<Reader>  $readers  prepared
     * @param  string  $folder  for keys that are put aside
     * @param  (\Closure(int, int): void)|null  $onProgress  told bytes read of all that are read
     */
    public function __construct(
        private readonly Plan $plan,
        private readonly Sides $readers,
        string $folder,
        private readonly ?\Closure $onProgress = null,
    ) {
        $this->parts = new TallyParts($plan, $readers, new TallySettings);
        $rows = ['source' => 0, 'target' => 0];
        $aside = Sides::each(function (Side $side) use ($folder, &$rows): GroupParts {
            [$parts, $rows[$side->value]] = $this->aside($side, $folder);

            return $parts;
        });
        $this->marks = Sides::each(static fn(Side $side): RowMarks => new RowMarks($rows[$side->value], self::MARKS[self::UNKEYED]));
        $this->mark($aside);
        $aside->map(static fn(GroupParts $parts) => $parts->remove());
    }

    /** @return Sides<array{alone: int, both: int, unkeyed: int}> rows by where their key stands */
    public function counts(): Sides
    {
        return $this->marks->map(static fn(RowMarks $marks): array => [
            self::ALONE => $marks->count(self::MARKS[self::ALONE]),
            self::BOTH => $marks->count(self::MARKS[self::BOTH]),
            self::UNKEYED => $marks->count(self::MARKS[self::UNKEYED]),
        ]);
    }

    /**
     * @param  self::ALONE|self::BOTH|self::UNKEYED|null  $where  null: wherever
     * @return \Generator<int, Row> of a side, in the order of the delivery
     */
    public function rows(Side $side, ?string $where = null): \Generator
    {
        [$marks, $wanted, $nth] = [$this->marks->of($side), $where === null ? null : self::MARKS[$where], 0];
        if ($wanted !== null && $marks->count($wanted) === 0) {
            return;
        }
        foreach ($this->readers->of($side)->records() as $row) {
            if ($row instanceof Row && ($wanted === null || $marks->is($nth++, $wanted))) {
                yield $row;
            }
        }
    }

    /** Where a row was delivered, in words. */
    public function placeOf(Side $side, Row $row): string
    {
        $place = $this->readers->of($side)->place($row->line);

        return ($place->part > 1 ? "{$place->part}: " : '').$place->line;
    }

    /**
     * @param  list<string|null>  $names  of prepared columns
     * @return list<int|null> where they stand in a row
     */
    public function columnPlaces(Side $side, array $names): array
    {
        $columns = $this->readers->of($side)->columns();

        return array_map(static fn(?string $name): ?int => $name === null ? null : $columns->positionOf($name), $names);
    }

    /** @return array{GroupParts, int} the numbers of the rows by their keys, and how many there are */
    private function aside(Side $side, string $folder): array
    {
        $parts = new GroupParts($folder);
        $reader = $this->readers->of($side);
        $before = $side === Side::Source ? 0 : $this->readers->source->bytes();
        $total = $this->readers->source->bytes() + $this->readers->target->bytes();
        $places = $reader->columns()->positionsOf($this->plan->keyNames($side));
        $form = $this->parts->keyForm($side);
        $nth = 0;
        foreach (
            $reader->records(fn(int $bytes) => $this->onProgress === null ? null : ($this->onProgress)($before + $bytes, $total))
            as $row
        ) {
            if ($row instanceof Row) {
                $key = $form->canonical(array_map(static fn(int $place): string => $row->cells[$place], $places));
                $parts->put(trim($key, Batch::CELL_END) === '' ? '' : $key, pack('J', $nth++));
            }
        }

        return [$parts, $nth];
    }

    /** @param Sides<GroupParts> $aside */
    private function mark(Sides $aside): void
    {
        $bridges = $this->parts->bridges();
        $isBridged = array_fill_keys([...array_column($bridges, 'source'), ...array_column($bridges, 'target')], true);
        /** @var array<'source'|'target', array<array-key, list<int>>> $alone rows of keys that bridges name */
        $alone = ['source' => [], 'target' => []];
        for ($part = 0; $part < GroupParts::PARTS; $part++) {
            $rows = $aside->map(static fn(GroupParts $parts): array => self::places($parts, $part));
            foreach (Side::cases() as $side) {
                $others = $rows->of($side->other());
                foreach ($rows->of($side) as $key => $places) {
                    $where = isset($others[$key]) ? self::BOTH : self::ALONE;
                    $this->marks->of($side)->set($places, self::MARKS[$where]);
                    if ($where === self::ALONE && isset($isBridged[$key])) {
                        $alone[$side->value][$key] = $places;
                    }
                }
            }
        }
        foreach ($bridges as ['source' => $old, 'target' => $new]) {
            if (isset($alone['source'][$old], $alone['target'][$new])) {
                $this->marks->source->set($alone['source'][$old], self::MARKS[self::BOTH]);
                $this->marks->target->set($alone['target'][$new], self::MARKS[self::BOTH]);
            }
        }
    }

    /** @return array<array-key, list<int>> numbers of rows by canonical key; those without a key left out */
    private static function places(GroupParts $parts, int $part): array
    {
        $places = [];
        foreach ($parts->part($part) as [$key, $packed]) {
            if ($key !== '') {
                /** @var array{nth: int} $row */
                $row = unpack('Jnth', $packed);
                $places[$key][] = $row['nth'];
            }
        }

        return $places;
    }
}
