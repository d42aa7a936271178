<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use Illuminate\Support\Carbon;

/** What the deliverer says about a delivery. */
final readonly class DeliveryTerms
{
    /**
     * @param  array<string, string>  $origins  receipt => label of its rows; the file's name where it is not there
     * @param  string|null  $originColumn  the column that holds the label; null: none does
     * @param  string|null  $asOf  the moment that the extract shows (ISO 8601)
     * @param  int|null  $rowsClaimed  the deliverer's own count
     */
    public function __construct(public array $origins = [], public ?string $originColumn = null, public ?string $asOf = null, public ?int $rowsClaimed = null) {}

    /** @param array{origins?: array<string, string>, originColumn?: string|null, asOf?: string|null, rowsClaimed?: int|null} $kept as toArray() gives it */
    public static function fromArray(array $kept): self
    {
        return new self($kept['origins'] ?? [], $kept['originColumn'] ?? null, $kept['asOf'] ?? null, $kept['rowsClaimed'] ?? null);
    }

    /** @return array{origins: array<string, string>, originColumn: string|null, asOf: string|null, rowsClaimed: int|null} */
    public function toArray(): array
    {
        return ['origins' => $this->origins, 'originColumn' => $this->originColumn, 'asOf' => $this->asOf, 'rowsClaimed' => $this->rowsClaimed];
    }

    public function asOfMoment(): ?Carbon
    {
        return $this->asOf === null ? null : Carbon::parse($this->asOf);
    }
}
