<?php

declare(strict_types=1);

namespace App\Http\Requests\Access;

use App\Models\SecondFactor;
use App\Models\User;
use Illuminate\Foundation\Http\FormRequest;

final class PasswordRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $person = $this->user();
        $known = $person instanceof User
            ? [$person->name, $person->email, ...$person->memberships()->with('migration')->get()->pluck('migration.name')->all()]
            : [];

        return [
            'current' => ['required', 'string', 'max:1000'],
            'new' => [
                'required',
                'string',
                new GoodPassword(
                    array_values(array_filter($known, is_string(...))),
                    $person instanceof User && SecondFactor::of($person) !== null,
                ),
            ],
        ];
    }

    public function current(): string
    {
        return $this->string('current')->toString();
    }

    public function new(): string
    {
        return $this->string('new')->toString();
    }
}
