<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Migration;
use App\Models\User;

/**
 * Who may do what in a migration. Everything that hangs on one (datasets, deliveries, tallies) is asked here; administering the
 * installation gives no right in any of them.
 */
final readonly class MigrationPolicy
{
    public function create(User $person): bool
    {
        return $person->is_administrator;
    }

    public function view(User $person, Migration $migration): bool
    {
        return Act::View->isFor($person->roleIn($migration));
    }

    public function work(User $person, Migration $migration): bool
    {
        return Act::Work->isFor($person->roleIn($migration));
    }

    public function comment(User $person, Migration $migration): bool
    {
        return Act::Comment->isFor($person->roleIn($migration));
    }

    public function unmask(User $person, Migration $migration): bool
    {
        return Act::Unmask->isFor($person->roleIn($migration));
    }

    public function audit(User $person, Migration $migration): bool
    {
        return Act::Audit->isFor($person->roleIn($migration));
    }

    public function rule(User $person, Migration $migration): bool
    {
        return Act::Rule->isFor($person->roleIn($migration));
    }
}
