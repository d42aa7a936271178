<?php

declare(strict_types=1);

namespace App\Http\Requests\Access;

use Illuminate\Foundation\Http\FormRequest;

final class FirstPersonRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'code' => ['required', 'string', 'max:100'],
            'name' => ['required', 'string', 'max:100'],
            'email' => ['required', 'email', 'max:254'],
            'password' => ['required', 'string', new GoodPassword([$this->name(), $this->email()])],
        ];
    }

    public function code(): string
    {
        return $this->string('code')->toString();
    }

    public function name(): string
    {
        return $this->string('name')->trim()->toString();
    }

    public function email(): string
    {
        return $this->string('email')->trim()->toString();
    }

    public function password(): string
    {
        return $this->string('password')->toString();
    }
}
