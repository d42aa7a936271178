<?php

declare(strict_types=1);

namespace App\Models;

/** What somebody is in a migration. What each may do stands in App\Policies\Act. */
enum Role: string
{
    case Viewer = 'viewer';
    case Analyst = 'analyst';
    case TestManager = 'test-manager';
    case DataOwner = 'data-owner';
    case Auditor = 'auditor';

    public function label(): string
    {
        return match ($this) {
            self::Viewer => 'viewer',
            self::Analyst => 'analyst',
            self::TestManager => 'test manager',
            self::DataOwner => 'data owner',
            self::Auditor => 'auditor',
        };
    }
}
