<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use Illuminate\Database\Connection;
use NineTally\Core\Row\Side;

/** Further columns of the rows that a page of findings is about, to be shown beside them. */
final readonly class AdditionalColumns
{
    /** More would leave no room for what differs. */
    public const MOST_COLUMNS = 4;

    /** Characters; the record shows values whole. */
    private const LONGEST = 100;

    public function __construct(private Connection $database) {}

    /**
     * @param  list<RulableRow>|list<RulableCell>  $findings
     * @param  list<string>  $columns  names in the source, or in the target of columns that only it has
     * @return array<int, list<string|null>> the values of a row by its sequence, in the order of the columns; null where the row has no
     *     such column
     */
    public function of(Tally $tally, Mask $mask, array $findings, array $columns): array
    {
        if ($columns === [] || $findings === []) {
            return [];
        }
        $layout = TallyColumns::ofTally($tally);
        $partners = array_combine($layout->plan->pairedNames(Side::Source), $layout->plan->pairedNames(Side::Target));
        $places = array_map(
            static fn(string $name): array => [
                'name' => $name,
                'source' => array_search($name, $layout->sourceColumns, true),
                'target' => array_search($partners[$name] ?? $name, $layout->targetColumns, true),
            ],
            $columns,
        );
        $values = [];
        foreach ($this->cells($tally, $findings) as $sequence => [$source, $target]) {
            $values[$sequence] = array_map(static function (array $place) use ($source, $target, $mask): ?string {
                $value =
                    ($place['source'] === false ? null : $source[$place['source']] ?? null) ??
                    ($place['target'] === false ? null : $target[$place['target']] ?? null);

                return $value === null
                    ? null
                    : mb_substr($mask->hidesColumn($place['name']) ? $mask->value($value) : $value, 0, self::LONGEST);
            }, $places);
        }

        return $values;
    }

    /**
     * @param  list<RulableRow>|list<RulableCell>  $findings
     * @return \Generator<int, array{list<string>, list<string>}> of source and target, by the sequence of the row
     */
    private function cells(Tally $tally, array $findings): \Generator
    {
        $sequences = [];
        foreach ($findings as $finding) {
            if ($finding instanceof RulableRow) {
                yield $finding->finding->sequence => [$finding->finding->source->cells ?? [], $finding->finding->target->cells ?? []];
            } else {
                $sequences[] = $finding->rowSequence;
            }
        }
        if ($sequences === []) {
            return;
        }
        foreach (
            $this->database
                ->table('row_findings')
                ->where('tally_id', $tally->id)
                ->whereIntegerInRaw('sequence', $sequences)
                ->select(['sequence', 'source_cells', 'target_cells'])
                ->get()
            as $fields
        ) {
            $row = DatabaseRow::of($fields);
            yield $row->int('sequence') => [$row->cellsOrNull('source_cells') ?? [], $row->cellsOrNull('target_cells') ?? []];
        }
    }
}
