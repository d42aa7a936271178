<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Role;

/** What can be done in a migration, and which roles may: the one table that policies, docs and tests have it from. */
enum Act: string
{
    case View = 'view';
    case Work = 'work';
    case Rule = 'rule';
    case Comment = 'comment';
    case Unmask = 'unmask';
    case Audit = 'audit';

    public function sentence(): string
    {
        return match ($this) {
            self::View => 'see every station, the report and what is taken away, masked where columns are sensitive',
            self::Work => 'add datasets, deliver, prepare, match, tally, name tallies',
            self::Rule => 'rule on findings, undo, say who mends a defect, make corrections, keep filters',
            self::Comment => 'comment on findings',
            self::Audit => 'see the trail: who signed in, was refused, took away, had values shown, changed roles',
            self::Unmask => 'have sensitive values shown for an hour, on record',
        };
    }

    /** @return list<Role> */
    public function roles(): array
    {
        return match ($this) {
            self::View => Role::cases(),
            self::Work => [Role::Analyst],
            self::Audit => [Role::Auditor],
            self::Rule, self::Comment, self::Unmask => [Role::Analyst, Role::TestManager, Role::DataOwner],
        };
    }

    public function isFor(?Role $role): bool
    {
        return in_array($role, $this->roles(), true);
    }
}
