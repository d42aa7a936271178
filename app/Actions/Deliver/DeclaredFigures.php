<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Models\Delivery;
use Brick\Math\BigDecimal;

/**
 * Holds what the deliverer says of a delivery, by hand or in the last record of a file, against what arrived.
 *
 * @phpstan-import-type Claim from Delivery
 */
final readonly class DeclaredFigures
{
    public function __construct(private DeliveryTerms $terms) {}

    /**
     * @param  non-empty-list<ReadPart>  $parts
     * @return list<Claim>
     */
    public function of(array $parts): array
    {
        $claims = [];
        if ($this->terms->rowsClaimed !== null) {
            $claims[] = $this->ofRows(
                Delivery::BY_HAND,
                (string) $this->terms->rowsClaimed,
                array_sum(array_map(static fn(ReadPart $part): int => $part->delivered(), $parts)),
            );
        }
        foreach ($this->terms->totals as $column => $claimed) {
            $sum = array_reduce(
                $parts,
                static fn(BigDecimal $sum, ReadPart $part): BigDecimal => $sum->plus($part->totals->sum((string) $column)),
                BigDecimal::zero(),
            );
            $claims[] = $this->ofSum(
                (string) $column,
                Delivery::BY_HAND,
                $claimed,
                $sum,
                array_sum(array_map(static fn(ReadPart $part): int => $part->totals->unreadable((string) $column), $parts)),
            );
        }
        foreach ($parts as $part) {
            $claims = [...$claims, ...$this->ofTrailer($part)];
        }

        return $claims;
    }

    /** @return list<Claim> */
    private function ofTrailer(ReadPart $part): array
    {
        $meaning = $this->terms->trailers[$part->receipt->id] ?? null;
        if ($meaning === null) {
            return [];
        }
        $from = "the last record of {$part->receipt->file_name}";
        $cell = static fn(int $number): string => trim($part->trailer->cells[$number - 1] ?? '');
        $claims = $meaning['rows'] === null ? [] : [$this->ofRows($from, $cell($meaning['rows']), $part->delivered())];
        foreach ($meaning['totals'] as $column => $number) {
            $claims[] = $this->ofSum(
                (string) $column,
                $from,
                $cell($number),
                $part->totals->sum((string) $column),
                $part->totals->unreadable((string) $column),
            );
        }

        return $claims;
    }

    /** @return Claim */
    private function ofRows(string $from, string $claimed, int $arrived): array
    {
        return [
            'about' => 'rows',
            'column' => null,
            'from' => $from,
            'claimed' => $claimed,
            'arrived' => (string) $arrived,
            'unreadable' => 0,
            'holds' => Delivery::figureOf($claimed)?->isEqualTo($arrived) ?? false,
        ];
    }

    /** @return Claim */
    private function ofSum(string $column, string $from, string $claimed, BigDecimal $arrived, int $unreadable): array
    {
        return [
            'about' => 'sum',
            'column' => $column,
            'from' => $from,
            'claimed' => $claimed,
            'arrived' => (string) $arrived->stripTrailingZeros(),
            'unreadable' => $unreadable,
            'holds' => Delivery::figureOf($claimed)?->isEqualTo($arrived) ?? false,
        ];
    }
}
