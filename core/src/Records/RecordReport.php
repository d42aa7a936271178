<?php

declare(strict_types=1);

namespace NineTally\Core\Records;

use NineTally\Core\Figures\UnbalancedTally;
use NineTally\Core\Row\Side;

/**
 * What came of a rule that values must have a record: the ledger of the rows of each side, the values that have none and the records that
 * nothing refers to, each once.
 *
 * @phpstan-import-type RecordDocument from RequiredRecord
 *
 * @phpstan-type SideFigures array{problem: string|null, rows: int, blank: int, found: int, without: int, values: int, valuesWithout: int,
 *     records: int, recordValues: int, refused: int, unreferenced: int}
 * @phpstan-type Kind 'lost'|'inherited'|'own'|'untold'|'source'
 * @phpstan-type RecordFigures array{rule: RecordDocument, source: SideFigures, target: SideFigures, kinds: array<Kind, array{values: int,
 *     rows: int}>}
 * @phpstan-type Missing array{kind: Kind, values: list<string>, rows: int, first: list<string>}
 * @phpstan-type Unreferenced array{values: list<string>, records: int, part: int, line: int}
 */
final class RecordReport
{
    /** Of values without a record, and of records that nothing refers to, so many are told of each kind. */
    public const TOLD = 10_000;

    /**
     * Values of the target without a record: the source had its record; it has none there either; the source never had the value; or nobody
     * can tell, for the source's records were not read. And those of the source.
     */
    public const KINDS = ['lost', 'inherited', 'own', 'untold', 'source'];

    private const NONE = ['values' => 0, 'rows' => 0];

    private const NOTHING = [
        'problem' => null, 'rows' => 0, 'blank' => 0, 'found' => 0, 'without' => 0, 'values' => 0, 'valuesWithout' => 0, 'records' => 0,
        'recordValues' => 0, 'refused' => 0, 'unreferenced' => 0,
    ];

    /** @var array{source: SideFigures, target: SideFigures} */
    public array $sides = ['source' => self::NOTHING, 'target' => self::NOTHING];

    /** @var array<Kind, array{values: int, rows: int}> */
    public array $kinds = [
        'lost' => self::NONE,
        'inherited' => self::NONE,
        'own' => self::NONE,
        'untold' => self::NONE,
        'source' => self::NONE,
    ];

    /** @var array<Kind, list<Missing>> those to be told are among them */
    private array $missing = ['lost' => [], 'inherited' => [], 'own' => [], 'untold' => [], 'source' => []];

    /** @var array{source: list<Unreferenced>, target: list<Unreferenced>} */
    private array $unreferenced = ['source' => [], 'target' => []];

    public function __construct(public readonly RequiredRecord $rule) {}

    /**
     * @param  Kind  $kind
     * @param  list<string>  $values
     * @param  list<string>  $first  the key of the first row that needs it
     */
    public function isMissing(string $kind, array $values, int $rows, array $first): void
    {
        $side = $kind === 'source' ? 'source' : 'target';
        $this->sides[$side]['without'] += $rows;
        $this->sides[$side]['valuesWithout']++;
        ['values' => $before, 'rows' => $rowsBefore] = $this->kinds[$kind];
        $this->kinds[$kind] = ['values' => $before + 1, 'rows' => $rowsBefore + $rows];
        $this->missing[$kind][] = ['kind' => $kind, 'values' => $values, 'rows' => $rows, 'first' => $first];
        if (count($this->missing[$kind]) === 2 * self::TOLD) {
            $this->missing[$kind] = self::most($this->missing[$kind]);
        }
    }

    /**
     * @param  list<string>  $values
     * @param  array{part: int, line: int}  $first  where the first of its records was delivered
     */
    public function isUnreferenced(Side $side, array $values, int $records, array $first): void
    {
        if ($this->sides[$side->value]['unreferenced']++ < self::TOLD) {
            $this->unreferenced[$side->value][] = ['values' => $values, 'records' => $records, ...$first];
        }
    }

    /** @throws UnbalancedTally when a row is not accounted for */
    public function mustHold(): void
    {
        foreach ($this->sides as $side => $figures) {
            $sum = $figures['blank'] + $figures['found'] + $figures['without'];
            if ($figures['problem'] === null && $sum !== $figures['rows']) {
                throw UnbalancedTally::inEquation(
                    "rows of the {$side} = without a value + with a record + without one",
                    $sum,
                    $figures['rows'],
                );
            }
        }
    }

    /** Whether the move lost a record that its rows need. */
    public function isWorse(): bool
    {
        return $this->kinds['lost']['values'] + $this->kinds['own']['values'] > 0;
    }

    /** @return list<Missing> of each kind those that most rows need first */
    public function missing(): array
    {
        $all = [];
        foreach ($this->missing as $ofKind) {
            $all = [...$all, ...self::most($ofKind)];
        }

        return $all;
    }

    /**
     * @param  list<Missing>  $missing
     * @return list<Missing> those that most rows need first; of as many, by their values
     */
    private static function most(array $missing): array
    {
        usort(
            $missing,
            static fn(array $one, array $other): int => $other['rows'] <=> $one['rows'] ?: $one['values'] <=> $other['values'],
        );

        return array_slice($missing, 0, self::TOLD);
    }

    /** @return list<Unreferenced> */
    public function unreferenced(Side $side): array
    {
        return $this->unreferenced[$side->value];
    }

    /** @return RecordFigures */
    public function figures(): array
    {
        return ['rule' => $this->rule->toArray(), ...$this->sides, 'kinds' => $this->kinds];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [...$this->figures(), 'missing' => $this->missing(), 'unreferenced' => $this->unreferenced];
    }
}
