<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Migration;
use App\Models\User;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;

abstract class Controller
{
    /** Denied unless the policy allows it. */
    protected function allow(string $ability, Migration $migration): void
    {
        Gate::authorize($ability, $migration);
    }

    /** Administering people and the installation; it gives no right in any migration. */
    protected function administrator(Request $request): User
    {
        $person = $this->person($request);

        return $person->is_administrator
            ? $person
            : throw new AuthorizationException('People are kept by an administrator of this installation. Ask one.');
    }

    protected function person(Request $request): User
    {
        $person = $request->user();

        return $person instanceof User ? $person : throw new AuthenticationException;
    }
}
