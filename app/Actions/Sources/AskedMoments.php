<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Models\Receipt;
use Carbon\CarbonImmutable;
use NineTally\Core\Row\Counted;

/** When the sides were asked for what was drawn, which may be later than somebody wanted them to be. */
final readonly class AskedMoments
{
    /** @param array<string, non-empty-list<Receipt>> $receipts by side */
    public function __construct(private array $receipts) {}

    /** @return int|null seconds between the first and the last moment; null where one side alone was asked */
    public function apart(): ?int
    {
        if (count($this->receipts) < 2) {
            return null;
        }
        $source = $this->moments('source');
        $target = $this->moments('target');

        return (int) abs(min(...$source, ...$target)->diffInSeconds(max(...$source, ...$target)));
    }

    public function inWords(): string
    {
        $apart = $this->apart();

        return match ($apart) {
            null => 'The other side stays as it was delivered.',
            0 => 'Both sides were asked within one second.',
            default => 'Both sides were asked '.Counted::of($apart, 'second').' apart.',
        };
    }

    /** @return non-empty-list<CarbonImmutable> */
    private function moments(string $side): array
    {
        return array_map(
            static fn(Receipt $receipt): CarbonImmutable => CarbonImmutable::parse($receipt->query['at'] ?? $receipt->created_at),
            $this->receipts[$side],
        );
    }
}
