<?php

declare(strict_types=1);

namespace NineTally\Core\Profile\Repeats;

use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Totals\ExactSum;

/**
 * What a look at repeats found: figures of each side, groups gathered by the columns in which their rows differ, those groups that weigh
 * most, and where the repeats come from.
 *
 * @phpstan-import-type Origin from RepeatOrigins
 *
 * @phpstan-type SideFigures array{rows: int, blank: int, combinations: int, groups: int, inGroups: int, beyondFirst: int, copies: int,
 *     conflicts: int, byForm: int, onlyHere: int}
 */
final class RepeatsFound
{
    private const MOST_GROUPS = 60;

    private const MOST_PATTERNS = 200;

    private const MOST_OF_PATTERN = 12;

    private const NONE = [
        'rows' => 0, 'blank' => 0, 'combinations' => 0, 'groups' => 0, 'inGroups' => 0, 'beyondFirst' => 0, 'copies' => 0, 'conflicts' => 0,
        'byForm' => 0, 'onlyHere' => 0,
    ];

    /** @var array{source: SideFigures, target: SideFigures} */
    private array $figures = ['source' => self::NONE, 'target' => self::NONE];

    /**
     * @var array<string, array{side: 'source'|'target', columns: list<string>, groups: int, rows: int, beyondFirst: int,
     *     largest: LargestGroups}>
     */
    private array $patterns = [];

    /** @var array{source: ExactSum, target: ExactSum} what rows beyond the first of their group add to a total */
    private readonly array $surplus;

    /** @var array{size: LargestGroups, stake: LargestGroups, differing: LargestGroups, 'one side': LargestGroups} */
    private readonly array $largest;

    /** @var array{source: RepeatOrigins, target: RepeatOrigins} */
    private readonly array $origins;

    /**
     * @param  array{source: int, target: int}  $rows  all that were looked at
     * @param  array{source: ExactSum, target: ExactSum}|null  $totals  of the column that is at stake, over all of them
     */
    public function __construct(array $rows, private readonly ?array $totals = null)
    {
        $this->surplus = ['source' => new ExactSum, 'target' => new ExactSum];
        $this->figures['source']['rows'] = $this->figures['source']['blank'] = $rows['source'];
        $this->figures['target']['rows'] = $this->figures['target']['blank'] = $rows['target'];
        $this->largest = [
            'size' => new LargestGroups(self::MOST_GROUPS),
            'stake' => new LargestGroups(self::MOST_GROUPS),
            'differing' => new LargestGroups(self::MOST_GROUPS),
            'one side' => new LargestGroups(self::MOST_GROUPS),
        ];
        $this->origins = ['source' => new RepeatOrigins, 'target' => new RepeatOrigins];
    }

    /** Values that no other row of their side has. */
    public function addSingle(bool $inSource, bool $inTarget): void
    {
        foreach (['source' => $inSource, 'target' => $inTarget] as $side => $is) {
            $this->figures[$side]['combinations'] += (int) $is;
            $this->figures[$side]['blank'] -= (int) $is;
        }
    }

    public function add(RepeatGroup $group): void
    {
        $this->largest['size']->add($group->rows(), $group);
        $this->totals !== null && $group->stake() > 0.0 && $this->largest['stake']->add($group->stake(), $group);
        $group->differing() > 0 && $this->largest['differing']->add($group->differing(), $group);
        $group->isOfOneSide() && $this->largest['one side']->add($group->rows(), $group);
        foreach ($group->sides() as $side => $ofSide) {
            $this->addSingle($side === 'source' && $ofSide->places !== [], $side === 'target' && $ofSide->places !== []);
            $this->figures[$side]['blank'] -= $ofSide->beyondFirst();
            if (count($ofSide->places) < 2) {
                continue;
            }
            $figures = &$this->figures[$side];
            $figures['groups']++;
            $figures['inGroups'] += count($ofSide->places);
            $figures['beyondFirst'] += $ofSide->beyondFirst();
            $figures[$ofSide->isConflict ? 'conflicts' : 'copies']++;
            $figures['byForm'] += (int) $ofSide->isByForm;
            $figures['onlyHere'] += (int) $group->isOfOneSide();
            unset($figures);
            $ofSide->surplus === null || $this->surplus[$side]->addSum($ofSide->surplus);
            $this->addToPattern($side, $ofSide, $group);
            $first = RecordPlace::ofPacked($ofSide->places[0]);
            foreach (array_slice($ofSide->places, 1) as $place) {
                $this->origins[$side]->see($first, RecordPlace::ofPacked($place));
            }
        }
    }

    /** @param 'source'|'target' $side */
    private function addToPattern(string $side, LookedGroup $ofSide, RepeatGroup $group): void
    {
        $name = "{$side}\0".implode("\0", $ofSide->differing);
        $this->patterns[$name] ??= [
            'side' => $side, 'columns' => $ofSide->differing, 'groups' => 0, 'rows' => 0, 'beyondFirst' => 0,
            'largest' => new LargestGroups(self::MOST_OF_PATTERN),
        ];
        $this->patterns[$name]['groups']++;
        $this->patterns[$name]['rows'] += count($ofSide->places);
        $this->patterns[$name]['beyondFirst'] += $ofSide->beyondFirst();
        $this->patterns[$name]['largest']->add(count($ofSide->places), $group);
    }

    /** @return array{source: SideFigures, target: SideFigures} */
    public function figures(): array
    {
        return $this->figures;
    }

    /**
     * @return array{source: array{all: string, beyondFirst: string, without: string}, target: array{all: string, beyondFirst: string,
     *     without: string}}|null the total of all rows, what repeats add to it, and what is left without them; null where none was asked
     *     about
     */
    public function stakes(): ?array
    {
        if ($this->totals === null) {
            return null;
        }
        $told = static fn(ExactSum $all, ExactSum $beyond): array => [
            'all' => (string) $all->total(),
            'beyondFirst' => (string) $beyond->total(),
            'without' => (string) $all->total()->minus($beyond->total()),
        ];

        return [
            'source' => $told($this->totals['source'], $this->surplus['source']),
            'target' => $told($this->totals['target'], $this->surplus['target']),
        ];
    }

    /** @return array{source: list<Origin>, target: list<Origin>} */
    public function origins(): array
    {
        return ['source' => $this->origins['source']->found(), 'target' => $this->origins['target']->found()];
    }

    /** @return array{size: list<RepeatGroup>, stake: list<RepeatGroup>, differing: list<RepeatGroup>, 'one side': list<RepeatGroup>} */
    public function largest(): array
    {
        return [
            'size' => $this->largest['size']->groups(),
            'stake' => $this->largest['stake']->groups(),
            'differing' => $this->largest['differing']->groups(),
            'one side' => $this->largest['one side']->groups(),
        ];
    }

    /**
     * @return list<array{side: 'source'|'target', columns: list<string>, groups: int, rows: int, beyondFirst: int,
     *     largest: list<RepeatGroup>}> those with most groups first
     */
    public function patterns(): array
    {
        $patterns = array_values($this->patterns);
        usort(
            $patterns,
            static fn(array $one, array $other): int => [$other['groups'], $one['side'], $one['columns']] <=>
                [$one['groups'], $other['side'], $other['columns']],
        );

        return array_map(
            static fn(array $pattern): array => [...$pattern, 'largest' => $pattern['largest']->groups()],
            array_slice($patterns, 0, self::MOST_PATTERNS),
        );
    }
}
