<?php

declare(strict_types=1);

namespace App\Http\Requests\Access;

use Illuminate\Foundation\Http\FormRequest;

final class SignInRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'email' => ['required', 'string', 'max:254'],
            'password' => ['required', 'string', 'max:200'],
            'code' => ['string', 'max:40'],
        ];
    }

    public function email(): string
    {
        return $this->string('email')->trim()->toString();
    }

    /** Of the second factor; '' where none is given. */
    public function code(): string
    {
        return $this->string('code')->trim()->toString();
    }

    public function password(): string
    {
        return $this->string('password')->toString();
    }
}
