<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\User;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Http\Request;

abstract class Controller
{
    protected function person(Request $request): User
    {
        $person = $request->user();

        return $person instanceof User ? $person : throw new AuthenticationException;
    }
}
