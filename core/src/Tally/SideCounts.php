<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Matching\ScanResult;
use NineTally\Core\Preparation\PreparationLedger;
use NineTally\Core\Row\Side;

/** The three ledgers of one side, and what became of rows whose key repeats. */
final readonly class SideCounts
{
    /**
     * @param  int  $unmatched  rows missing (source) or extra (target)
     * @param  int  $kept  rows that a policy kept, of keys that repeat here
     * @param  int  $agreedByRule  rows that agree only for a rule that lets one of their cells pass
     * @param  array{identical: int, byRule: int}  $agreedWithoutOneKey  rows that agree, to which no key leads alone
     * @param  int  $notKept  rows of the class repeated that were not kept beside one of those
     */
    public function __construct(
        public Side $side,
        public int $read,
        public int $refused,
        public int $delivered,
        public int $leftOut,
        public int $made,
        public int $condensed,
        public int $prepared,
        public int $unkeyed,
        public int $partlyBlankKeys,
        public int $repeated,
        public int $keysRepeatedHereOnly,
        public int $keysRepeatedByForgiving,
        public int $agreed,
        public int $changed,
        public int $unmatched,
        public int $quotesLeftOpen = 0,
        public int $kept = 0,
        public int $notKept = 0,
        public int $agreedByRule = 0,
        public array $agreedWithoutOneKey = ['identical' => 0, 'byRule' => 0],
    ) {}

    /**
     * @param  list<ScanResult>  $scans  of all its ranges
     * @param  PreparationLedger|null  $ledger  of the steps that the rows went through before
     */
    public static function from(Side $side, array $scans, MatchCounts $counts, ?PreparationLedger $ledger = null): self
    {
        $sum = static fn(string $figure): int => array_sum(array_column(array_map(get_object_vars(...), $scans), $figure));
        $prepared = $sum('read') - $sum('refused');

        return new self(
            side: $side,
            read: $ledger === null ? $sum('read') : $ledger->read,
            refused: $sum('refused'),
            delivered: $ledger === null ? $prepared : $ledger->delivered,
            leftOut: $ledger?->leftOut() ?? 0,
            made: $ledger?->made() ?? 0,
            condensed: $ledger?->condensed() ?? 0,
            prepared: $prepared,
            unkeyed: $sum('unkeyed'),
            partlyBlankKeys: $sum('partlyBlank'),
            repeated: $counts->of($side, RowClass::Repeated),
            keysRepeatedHereOnly: $counts->keysRepeatedOnOneSideOnly($side),
            keysRepeatedByForgiving: $counts->keysRepeatedByForgiving($side),
            agreed: $counts->of($side, RowClass::Agreed),
            changed: $counts->of($side, RowClass::Changed),
            unmatched: $counts->of($side, $side === Side::Source ? RowClass::Missing : RowClass::Extra),
            quotesLeftOpen: $sum('quotesLeftOpen'),
            kept: $counts->byPolicy($side)['kept'],
            notKept: $counts->byPolicy($side)['notKept'],
            agreedByRule: $counts->agreedByRule,
            agreedWithoutOneKey: $counts->agreedWithoutOneKey,
        );
    }

    /**
     * Rows whose key repeats here, as the policy treats them; the first two are not compared.
     *
     * @return array{set_aside: int, not_kept: int, kept: int}
     */
    public function repeats(): array
    {
        return ['set_aside' => $this->repeated - $this->notKept, 'not_kept' => $this->notKept, 'kept' => $this->kept];
    }

    /** @return array<string, int> by the names of the export; the order is that of the ledgers */
    public function toArray(): array
    {
        return [
            'read' => $this->read,
            'refused' => $this->refused,
            'delivered' => $this->delivered,
            'left_out' => $this->leftOut,
            'made' => $this->made,
            'condensed' => $this->condensed,
            'prepared' => $this->prepared,
            'unkeyed' => $this->unkeyed,
            'repeated' => $this->repeated,
            'agreed' => $this->agreed,
            'changed' => $this->changed,
            $this->side === Side::Source ? 'missing' : 'extra' => $this->unmatched,
        ];
    }
}
