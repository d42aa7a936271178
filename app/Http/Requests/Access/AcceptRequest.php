<?php

declare(strict_types=1);

namespace App\Http\Requests\Access;

use App\Actions\Access\AcceptInvitation;
use Illuminate\Foundation\Http\FormRequest;

final class AcceptRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $token = $this->route('token');
        $invitation = AcceptInvitation::open(is_string($token) ? $token : '');

        return [
            'name' => ['required', 'string', 'max:100'],
            'password' => [
                'required',
                'string',
                new GoodPassword([$this->name(), $invitation->email, (string) $invitation->migration?->name]),
            ],
        ];
    }

    public function name(): string
    {
        return $this->string('name')->trim()->toString();
    }

    public function password(): string
    {
        return $this->string('password')->toString();
    }
}
