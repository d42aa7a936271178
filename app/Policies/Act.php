<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Role;

/** What can be done, and which roles may: the one table that addresses, tokens, docs and tests have it from. */
enum Act: string
{
    case View = 'view';
    case Work = 'work';
    case Rule = 'rule';
    case SetLimits = 'set-limits';
    case Sign = 'sign';
    case Waive = 'waive';
    case TakeClear = 'take-clear';
    case Purge = 'purge';
    case Comment = 'comment';
    case Unmask = 'unmask';
    case Audit = 'audit';
    case Administer = 'administer';
    case KeepAccount = 'keep-account';

    public function sentence(): string
    {
        return match ($this) {
            self::View => 'see every station, the report and what is taken away, masked where columns are sensitive',
            self::Work => 'add datasets, deliver, prepare, match, tally, name tallies',
            self::Rule => 'rule on findings, undo, say who mends a defect, make corrections, keep filters',
            self::SetLimits => 'say what is good enough: limits of a dataset and of the migration, which duties are apart, and how long '.
                'things are kept',
            self::Sign => 'sign: the analyst prepares, the test manager checks, the data owner accepts or returns',
            self::Waive => 'take a figure as it is though its limit fails, until a day',
            self::Purge => 'purge content for good, by rule or because law asks for it, on record',
            self::TakeClear => 'take evidence away with deliveries and clear values, on record',
            self::Comment => 'comment on findings',
            self::Audit => 'see the trail: who signed in, was refused, took away, had values shown, changed roles',
            self::Unmask => 'have sensitive values shown for an hour, on record',
            self::Administer => 'add migrations, keep people and roles, look after the work of the installation, change the key of seals',
            self::KeepAccount => 'keep the own account: password, second factor, sessions, tokens',
        };
    }

    /** @return list<Role> who may in a migration by a role there */
    public function roles(): array
    {
        return match ($this) {
            self::View => Role::cases(),
            self::Work => [Role::Analyst],
            self::Audit => [Role::Auditor],
            self::SetLimits => [Role::TestManager],
            self::Waive, self::TakeClear, self::Purge => [Role::DataOwner],
            self::Rule, self::Sign, self::Comment, self::Unmask => [Role::Analyst, Role::TestManager, Role::DataOwner],
            self::Administer, self::KeepAccount => [],
        };
    }

    public function isFor(?Role $role): bool
    {
        return in_array($role, $this->roles(), true);
    }

    /**
     * @return list<self> what a token can be made for: never what shows sensitive values, keeps an account, or gives rights to others
     */
    public static function ofTokens(): array
    {
        return [self::View, self::Work, self::Rule, self::Comment, self::Audit];
    }
}
