<?php

declare(strict_types=1);

namespace App\Models;

enum Role: string
{
    case Analyst = 'analyst';
    case DataOwner = 'data-owner';
    case Auditor = 'auditor';

    public function label(): string
    {
        return match ($this) {
            self::Analyst => 'analyst',
            self::DataOwner => 'data owner',
            self::Auditor => 'auditor',
        };
    }

    public function seesSensitiveValues(): bool
    {
        return $this !== self::Auditor;
    }
}
