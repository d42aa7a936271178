<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Sources\SourceKind;
use App\Adapters\Sources\Sources;
use App\Models\Receipt;
use Carbon\CarbonImmutable;

/** The moment that an extract shows: the deliverer says it; where rows were drawn, it is when they were asked for. */
final readonly class ShownMoment
{
    public function __construct(private Sources $sources) {}

    /**
     * @param  non-empty-list<Receipt>  $receipts  of one delivery
     * @return CarbonImmutable|null null where nobody knows: files may have been written at any time before they were taken
     */
    public function of(array $receipts, DeliveryTerms $terms): ?CarbonImmutable
    {
        if ($terms->asOf !== null) {
            return CarbonImmutable::parse($terms->asOf);
        }
        // ISO 8601 in UTC: the earliest sorts first.
        $asked = array_map(static fn(Receipt $receipt): ?string => $receipt->query['at'] ?? null, $receipts);
        if (in_array(null, $asked, true)) {
            return null;
        }
        $sources = array_unique(array_map(static fn(Receipt $receipt): string => $receipt->query['source'] ?? '', $receipts));
        foreach ($sources as $source) {
            $kind = $this->sources->kindOf($receipts[0]->dataset->migration, $source);
            if ($kind === null || in_array($kind, SourceKind::ofFiles(), true)) {
                return null;
            }
        }

        return CarbonImmutable::parse(min($asked));
    }
}
