<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use App\Models\DeliveryPart;
use App\Models\Receipt;
use NineTally\Core\Intake\PartFormat;

/**
 * A file that is part of a delivery, or waits to become one.
 *
 * @phpstan-import-type FormatDocument from PartFormat
 */
final readonly class PartFile
{
    /**
     * @param  string  $digest  SHA-256 of its bytes
     * @param  FormatDocument  $format
     * @param  string|null  $receipt  while it waits
     */
    private function __construct(public string $digest, public string $name, public array $format, public ?string $receipt) {}

    public static function delivered(DeliveryPart $part): self
    {
        return new self($part->digest, $part->file_name, $part->format, null);
    }

    public static function waiting(Receipt $receipt): self
    {
        return new self((string) $receipt->digest, $receipt->file_name, $receipt->partFormat()->toArray(), $receipt->id);
    }

    /** @return array{string, array<string, mixed>} what decides about its rows */
    public function content(): array
    {
        return [$this->digest, $this->format];
    }
}
