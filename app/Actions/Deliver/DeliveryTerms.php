<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Models\Receipt;

/**
 * What the deliverer says about a delivery.
 *
 * @phpstan-import-type TermsDocument from Receipt
 */
final readonly class DeliveryTerms
{
    /**
     * @param  array<string, string>  $partLabels  receipt => label of its rows; the file's name where it is not there
     * @param  string|null  $partLabelColumn  the column that holds the label; null: none does
     * @param  string|null  $asOf  the moment that the extract shows (ISO 8601)
     * @param  int|null  $rowsClaimed  the deliverer's own count
     * @param  array<string, string>  $totals  column => the deliverer's own sum
     * @param  array<string, array{rows: int|null, totals: array<string, int>}>  $trailers  receipt
     *     => which cells of its last record, from 1, say how many rows there are, and the sum of a column
     */
    public function __construct(
        public array $partLabels = [],
        public ?string $partLabelColumn = null,
        public ?string $asOf = null,
        public ?int $rowsClaimed = null,
        public array $totals = [],
        public array $trailers = [],
    ) {}

    /** @param TermsDocument $kept as toArray() gives it */
    public static function fromArray(array $kept): self
    {
        return new self(
            $kept['partLabels'] ?? [],
            $kept['partLabelColumn'] ?? null,
            $kept['asOf'] ?? null,
            $kept['rowsClaimed'] ?? null,
            $kept['totals'] ?? [],
            $kept['trailers'] ?? [],
        );
    }

    /** @return TermsDocument */
    public function toArray(): array
    {
        return [
            'partLabels' => $this->partLabels,
            'partLabelColumn' => $this->partLabelColumn,
            'asOf' => $this->asOf,
            'rowsClaimed' => $this->rowsClaimed,
            'totals' => $this->totals,
            'trailers' => $this->trailers,
        ];
    }

    /** @return list<string> columns of a part that are added up while it is read */
    public function summed(string $receipt): array
    {
        return array_map(strval(...), array_keys($this->totals + ($this->trailers[$receipt]['totals'] ?? [])));
    }
}
