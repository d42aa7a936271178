<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use App\Rulings\FindingSet\CancellableSearch;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\FilteredFindings;
use App\Rulings\GroupKind;
use Brick\Math\BigDecimal;
use Illuminate\Database\Query\Builder;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\Worth;

/**
 * What the differences of a filter's cells come to, column by column, for numbers of two columns are seldom of one unit. Of whole patterns
 * and classes the tally knows it; of anything else the cells are looked at.
 *
 * @phpstan-import-type WrittenWorth from Worth
 */
final readonly class WorthOfFindings
{
    public function __construct(private FilteredFindings $findings, private CancellableSearch $search) {}

    /**
     * Columns whose values are masked have none.
     *
     * @return list<array{pair: string, source: string, target: string, cells: int, worth: WrittenWorth}> in the order of the plan
     */
    public function of(Tally $tally, Filter $filter, Mask $mask): array
    {
        $pairs = $tally->planVersion->plan()->columnPairs;
        $known = $filter->isOfGroups() && ($filter->isOfCells || in_array($filter->text('class'), [null, RowClass::Changed->value], true));
        $worth = $known
            ? $this->ofPatterns($tally, $filter)
            : $this->search->replacingPrevious($filter->digest(), fn(): array => $this->ofCells($tally, $filter));
        $lines = [];
        foreach ($pairs as $place => $pair) {
            if (isset($worth[$place]) && ! $mask->hides($pair->source)) {
                $lines[] = [
                    'pair' => $pair->id,
                    'source' => $pair->source,
                    'target' => $pair->target,
                    'cells' => $worth[$place]->cells(),
                    'worth' => $worth[$place]->toArray(),
                ];
            }
        }

        return $lines;
    }

    /** @return array<int, Worth> by the place of the pair */
    private function ofPatterns(Tally $tally, Filter $filter): array
    {
        $numbers = $this->findings->patterns($tally, $filter);
        $worth = [];
        foreach ($tally->patterns()->whereNotNull('worth')->orderBy('number')->get(['number', 'pair_position', 'worth']) as $pattern) {
            if ($pattern->worth !== null && ($numbers === null || in_array($pattern->number, $numbers, true))) {
                $place = $pattern->pair_position;
                $worth[$place] = ($worth[$place] ?? Worth::none())->plus(Worth::fromArray($pattern->worth));
            }
        }

        return $worth;
    }

    /** @return array<int, Worth> by the place of the pair */
    private function ofCells(Tally $tally, Filter $filter): array
    {
        $worth = [];
        $branches = $this->findings->ruledOn($tally, $filter)[GroupKind::Pattern->value];
        $differences = array_map(
            static fn(Builder $branch): Builder => $branch
                ->whereNotNull('f.difference')
                ->select(['f.sequence', 'f.pair_position', 'f.difference']),
            $branches,
        );
        $union = array_reduce(
            array_slice($differences, 1),
            static fn(Builder $one, Builder $other): Builder => $one->union($other),
            $differences[0],
        );
        foreach (
            $union
                ->newQuery()
                ->fromSub($union, 'meant')
                ->groupBy('pair_position')
                ->selectRaw(
                    'pair_position, count(*) FILTER (WHERE difference > 0) AS cells_up, count(*) FILTER (WHERE difference < 0) AS '.
                        'cells_down, count(*) FILTER (WHERE difference = 0) AS noughts, '.
                        'coalesce(sum(difference) FILTER (WHERE difference > 0), 0) AS up, '.
                        'coalesce(sum(difference) FILTER (WHERE difference < 0), 0) AS down, '.
                        'greatest(max(difference), 0) AS most_up, least(min(difference), 0) AS most_down',
                )
                ->get()
            as $fields
        ) {
            $row = DatabaseRow::of($fields);
            $worth[$row->int('pair_position')] = new Worth(
                $row->int('cells_up'),
                $this->number($row, 'up'),
                $this->number($row, 'most_up'),
                $row->int('cells_down'),
                $this->number($row, 'down'),
                $this->number($row, 'most_down'),
                $row->int('noughts'),
            );
        }

        return $worth;
    }

    private function number(DatabaseRow $row, string $name): BigDecimal
    {
        $text = $row->text($name);

        return BigDecimal::of(is_numeric($text) ? $text : throw new \LogicException("The sum {$name} is no number."));
    }
}
