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
        $asked = array_map($this->asked(...), $receipts);

        return in_array(null, $asked, true) ? null : CarbonImmutable::parse(min($asked));
    }

    /** @return string|null ISO 8601 in UTC, so that the earliest sorts first */
    private function asked(Receipt $receipt): ?string
    {
        $query = $receipt->query;
        $kind = $query === null ? null : $this->sources->kindOf($receipt->dataset->migration, $query['source']);

        return $kind === null || in_array($kind, SourceKind::ofFiles(), true) ? null : $query['at'] ?? null;
    }
}
